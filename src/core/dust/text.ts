/** Text as the register compares it: lower case, no accents, words apart. */
export const normalised = (text: string): string =>
  text
    .toLowerCase()
    .replace(/ß/g, 'ss')
    .replace(/ł/g, 'l')
    .normalize('NFD')
    .replace(/[\u0300-\u036f]/g, '')
    .replace(/\b(\d0)\s*['’]\s*s\b/g, '$1s')
    .replace(/[^a-z0-9]+/g, ' ')
    .trim();

export const wordsOf = (text: string): readonly string[] =>
  normalised(text)
    .split(' ')
    .filter((w) => w !== '');

/**
 * Symbols that are ordinary words or scraps in lower case: read as a metal only as a chemist writes them. Source: IUPAC
 * symbols; which are typed in a workshop is common practice, no published source.
 */
const SYMBOLS: readonly (readonly [RegExp, string])[] = [
  [/\b(?:Al|AL)\b/g, ' aluminium '],
  [/\bBe\b(?=\s*(?:$|cu\b|copper|powder|dust|alloy|swarf|chips))/gi, ' beryllium '],
  [/\bNi\b/g, ' nickel '],
  [/\bCr\s*(?:\(?VI\)?|6\+?)/g, ' cr6 '],
];

/** A text with its symbols written out. */
export const spelledOut = (text: string): string =>
  SYMBOLS.reduce((out, [symbol, name]) => out.replace(symbol, name), text);

/** Words for the shape of removed material; they name no material. */
const SHAPES =
  'powder flakes flake chip chips chippings scrapings shaving shavings filing filings swarf fines turning turnings grindings grains granules crumb bits piece pieces particle particles debris dust dusts dusty sheet sheets board boards plank planks beam beams plate plates bar bars rod rods pipe pipes shred shreds block blocks offcut offcuts scrap scraps waste rubbish spane copeaux virutas trucioli krullen';
/** Words for manner, amount or time. */
const HOW =
  'a an and the of from off on in over under onto into across against with without at by for to or is was it its his her their my our some bit little lot lots mostly mainly only just also few very fine coarse dry damp loose small big large light heavy thick thin mixed mix broken crushed cured cold natural mild cast plain old new clean dirty based white black blue brown grey green red yellow this that last week month year years today yesterday day monday tuesday wednesday thursday friday saturday sunday morning evening two one three';
/** Tools and their use. */
const DONE_WITH =
  'skim wheat powdered sanding sanded sander sandings grinding ground grinder cut cutting cuttings cutter sawing sawn saw saws bandsaw chainsaw planed planing planer thicknesser jointer router routed routing lathe drill drilled drilling chasing raking scraped scraping scraper stripped stripping blasted trimming trimmed trimmer multitool nailer cleaning cleanup clean up swept vacuumed machined filed edge edges edging end ends';
/** Places on a job, at which any material may be. */
const WHERE =
  'floor floors flooring deck decks decking hull cabin galley saloon boat boats yacht barge bay shed loft shop workshop bench room house office site yard kitchen bathroom garage engine bow stern transom bulkhead hatch mast boom rudder tiller panel panels frame frames door doors window windows sill wall walls ceiling roof stairs step steps skirting trim moulding mouldings cupboard cupboards cabinet cabinets drawer drawers shelf shelves table tables chair chairs furniture locker lockers garden outside inside crew job work';
const IN_OTHER_LANGUAGES =
  'und von vom aus mit der die das dem den ein eine staub stauber fein alt alte altes auf im ' +
  'de du des le la les un une et avec poussieres fine vieux vieille sur dans en d l ' +
  'el los las y con del polvo fino viejo vieja una ' +
  'il lo gli e dal della polvere vecchio vecchia su lastre ' +
  'van het een en met uit stof fijn oud oude op pyl plyta z ze i dak dakplaat';
const HOW_AND_WHERE = [SHAPES, HOW, DONE_WITH, WHERE, IN_OTHER_LANGUAGES].join(' ');
const NOISE = new Set(HOW_AND_WHERE.split(' '));

const OLD = new Set(
  'old alt alte alter altes alten vieux vieil vieille vieilles viejo vieja viejos viejas vecchio vecchia vecchi vecchie oud oude antique original'.split(
    ' ',
  ),
);

/** Whether a word says that a thing is old, or is a year or a decade before 2000, in four digits or two. */
export const saysOld = (word: string): boolean => OLD.has(word) || /^1[89]\d\ds?$/.test(word) || /^[2-9]0s$/.test(word);

/**
 * Whether a word could name a dust: neither one of how and where nor a number. A scrap of one or two letters could: it may
 * be a symbol or a short form, and what is not known is asked about.
 */
export const couldName = (word: string): boolean => !NOISE.has(word) && !/^\d+s?$/.test(word);

const ENDINGS = ['staub', 'stof', 'dust', 'pulver', 'poeder', 'spaene', 'spane', 'mehl', 'powder', 'wolle'];
const LINKS = ['', 'en', 'n', 'er', 's'];

/** The material in a word that ends with its shape, as in "Eichenstaub": every stem it could have; empty for another word. */
export const stemsOf = (word: string): readonly string[] =>
  ENDINGS.filter((e) => word.endsWith(e) && word.length - e.length >= 3).flatMap((e) => {
    const stem = word.slice(0, -e.length);
    return LINKS.filter((link) => stem.endsWith(link)).map((link) => stem.slice(0, stem.length - link.length));
  });

/** Phrases that take a danger away and name no dust. */
const HARMLESS = new Set(['lead free', 'unleaded', 'free of lead', 'no lead', 'cold swarf']);
export const isHarmless = (phrase: string): boolean => HARMLESS.has(phrase);
