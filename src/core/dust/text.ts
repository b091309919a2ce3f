/** Text as the register compares it: lower case, no accents, words apart. */
export const normalised = (text: string): string =>
  text
    .toLowerCase()
    .replace(/ß/g, 'ss')
    .replace(/ł/g, 'l')
    .normalize('NFD')
    .replace(/[\u0300-\u036f]/g, '')
    .replace(/[^a-z0-9]+/g, ' ')
    .trim();

export const wordsOf = (text: string): readonly string[] =>
  normalised(text)
    .split(' ')
    .filter((w) => w !== '');

/** Words that say how, where or how much, and never what: alone they name no dust. */
const HOW_AND_WHERE =
  'a an and the of from off on in over under onto into across against with without at by for to or some bit little lot lots mostly mainly only just also few very fine coarse dry small big light heavy dust dusts dusty powder flakes flake chips chip chippings scrapings sanding sandings sanded  grinding ground cut cutting cuttings sawing sawn routed planed planing scraped scraping stripped blasted drilled drilling filings debris bits pieces particles waste rubbish cleaning cleanup clean up swept vacuumed floor deck hull cabin boat boats yacht keel barge bay shed loft shop workshop bench room house office site yard kitchen bathroom garage engine bow stern old new white black blue brown grey green red yellow last this that week month year years today yesterday crew job work ' +
  'und von vom aus mit der die das dem den ein eine staub stauber fein alt alte altes auf im in ' +
  'de du des le la les un une et avec poussieres fine vieux vieille sur dans en d l ' +
  'el los las y con del polvo fino viejo vieja en una ' +
  'il lo gli e con dal della polvere fine vecchio vecchia su ' +
  'van het een en met uit stof fijn oud oude op pyl z ze i';
const NOISE = new Set(HOW_AND_WHERE.split(' '));

const OLD = new Set(
  'old alt alte alter altes alten vieux vieil vieille vieilles viejo vieja viejos viejas vecchio vecchia vecchi vecchie oud oude antique original'.split(
    ' ',
  ),
);

/** Whether a word says that a thing is old, or is a year before 2000. */
export const saysOld = (word: string): boolean => OLD.has(word) || /^1[89]\d\ds?$/.test(word);

/** Whether a word could name a dust: not one of how and where, not a number, not a scrap. */
export const couldName = (word: string): boolean => word.length >= 3 && !NOISE.has(word) && !/^\d+s?$/.test(word);
