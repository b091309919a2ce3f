declare module 'psychrolib' {
  const psychrolib: {
    SI: number;
    SetUnitSystem(system: number): void;
    GetHumRatioFromRelHum(celsius: number, relativeHumidity: number, pressurePa: number): number;
    GetMoistAirDensity(celsius: number, humidityRatio: number, pressurePa: number): number;
  };
  export default psychrolib;
}
