/** The theme's colours as a chart takes them. */
export interface Ink {
  readonly text: string;
  readonly line: string;
  readonly soft: string;
  readonly watch: string;
  readonly stop: string;
  readonly info: string;
  readonly paper: string;
}

const INKS: Record<keyof Ink, string> = {
  text: '--color-base-content',
  line: '--color-primary',
  soft: '--ink-soft',
  watch: '--ink-watch',
  stop: '--ink-stop',
  info: '--ink-open',
  paper: '--color-base-100',
};

/** The theme's colours by name: a picture in the page's own markup follows the theme by itself. */
export const THEME_INK: Ink = {
  text: `var(${INKS.text})`,
  line: `var(${INKS.line})`,
  soft: `var(${INKS.soft})`,
  watch: `var(${INKS.watch})`,
  stop: `var(${INKS.stop})`,
  info: `var(${INKS.info})`,
  paper: `var(${INKS.paper})`,
};

/** Reads the colours of the page as painted now. */
export const readInk = (): Ink => {
  const style = getComputedStyle(document.documentElement);
  const of = (key: keyof Ink) => style.getPropertyValue(INKS[key]).trim();
  return {
    text: of('text'),
    line: of('line'),
    soft: of('soft'),
    watch: of('watch'),
    stop: of('stop'),
    info: of('info'),
    paper: of('paper'),
  };
};
