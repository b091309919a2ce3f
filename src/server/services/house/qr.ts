import QRCode from 'qrcode';

/**
 * The square code of an address, as SVG, with the quiet edge it needs. Level M stands a scratch. Source: ISO/IEC 18004
 * (error correction M restores about 15 %, four modules of quiet zone), from memory.
 */
export const qrSquare = (address: string): Promise<string> =>
  QRCode.toString(address, { type: 'svg', errorCorrectionLevel: 'M', margin: 4 });
