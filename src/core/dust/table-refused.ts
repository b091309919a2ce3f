import type { Dust } from './dust';
import { entryOf, eu, osha, uk } from './entry';

/** What nothing here is opened on: the words that lead to it, and who does it instead. Source: handbook, section 18; HSE and OSHA practice, from memory. */
export const REFUSED_DUSTS: readonly Dust[] = [
  entryOf('asbestos', {
    key: 'asbestos',
    name: 'asbestos',
    synonyms: [
      'asbestos', 'asbest', 'azbest', 'azbestu', 'amiante', 'amianto', 'asbesto', 'chrysotile', 'chrysotil', 'crisotilo', 'crisotile', 'amosite', 'amosit', 'crocidolite', 'krokydolith', 'crocidolita', 'tremolite', 'tremolit', 'anthophyllite', 'actinolite',
      'white asbestos', 'brown asbestos', 'blue asbestos', 'acm', 'acms', 'aib', 'asbestos cement', 'asbestos board', 'asbestos insulating board', 'asbestzement', 'asbestplatte', 'asbestplatten', 'asbestschnur', 'asbestpappe', 'asbestcement', 'asbestplaat', 'asbestplaten', 'plaque d amiante', 'plaques d amiante', 'amiante ciment', 'cemento amianto', 'placa de amianto',  'fibrociment amiante', 'fibrocemento con amianto', 'limpet', 'limpet coating', 'sprayed coating', 'sprayed insulation',
    ],
    limits: [osha(0.1, 'fibres per cm3, not mg/m3', '29 CFR 1910.1001 and 1926.1101, from memory of the source')],
    waste: 'asbestos: not by us',
    note: 'Licensed contractor. Leave it closed, leave the area, keep others out.',
  }),
  entryOf('asbestos', {
    key: 'mayHoldAsbestos',
    name: 'old board, lagging, seal or tile that may hold asbestos',
    synonyms: [
      'lagging', 'pipe lagging', 'millboard', 'rope seal', 'rope seals', 'old rope seal', 'insulating board', 'insulation board', 'old insulation', 'textured coating', 'vinyl tile', 'vinyl tiles', 'old vinyl tiles', 'black adhesive', 'bitumen adhesive', 'brake lining', 'brake linings', 'brake dust', 'clutch dust',
      'isolierplatte', 'rohrisolierung', 'bremsstaub', 'calorifuge', 'calorifugeage', 'plaque isolante', 'aislamiento antiguo', 'coibentazione', 'isolatieplaat', 'zachtboard',
    ],
    asks: ['provenFree'],
    waste: 'may hold asbestos: not by us',
    note: 'Banned in the UK 1999, the EU 2005; in the US materials of any age may hold it. Sampled free, or built after the ban, on paper: then it is what it is made of.',
  }),
  entryOf('reactiveMetal', {
    key: 'reactiveMetal',
    name: 'aluminium, magnesium, titanium or zirconium as dust or swarf',
    synonyms: [
      'aluminium', 'aluminum', 'alu', 'aluminium dust', 'aluminum dust', 'aluminium swarf', 'aluminio', 'alluminio', 'magnesium', 'magnesio', 'magnesium swarf', 'titanium', 'titan', 'titane', 'titanio', 'titanium swarf', 'zirconium', 'zirkonium', 'circonio', 'zirconio', 'metal fines', 'metal powder', 'fine metal', 'metallstaub', 'poudre metallique', 'polvo de aluminio', 'aluminiumstof', 'alu dust', 'ally swarf', 'alloy dust', 'pyrotechnic', 'thermite', 'lithium', 'lithium battery dust',
    ],
    waste: 'reactive metal: dry, closed metal container, as the fire brigade and the waste firm say',
    note: 'Burns and explodes as dust, worse with rust or steel sparks. Only a machine built for it, never wet-mixed.',
  }),
  entryOf('hot', {
    key: 'hot',
    name: 'embers, ash, sparks or slag',
    synonyms: [
      'embers', 'ember', 'hot embers', 'ash', 'ashes', 'hot ash', 'wood ash', 'fireplace ash', 'stove ash', 'cinders', 'sparks', 'grinding sparks', 'slag', 'welding slag', 'smouldering', 'smoldering', 'glowing', 'oily rags', 'oily rag', 'glut', 'asche', 'heisse asche', 'funken', 'funkenflug', 'schlacke', 'braises', 'braise', 'cendres', 'cendre', 'etincelles', 'laitier', 'brasas', 'ascuas', 'cenizas', 'ceniza', 'chispas', 'escoria', 'braci', 'cenere', 'scintille', 'scorie', 'gloeiende as', 'houtas', 'vonken', 'sintels',
    ],
    waste: 'hot matter: not in a vacuum',
    note: 'Put it out, let it go cold in metal, outdoors. Ash keeps embers for days.',
  }),
  entryOf('flammableLiquid', {
    key: 'flammableLiquid',
    name: 'petrol, solvent or resin not cured',
    synonyms: [
      'petrol', 'gasoline', 'gas oil', 'diesel', 'fuel', 'paraffin', 'kerosene', 'thinners', 'thinner', 'cellulose thinners', 'acetone', 'white spirit', 'mineral spirits', 'solvent', 'solvents', 'styrene', 'wet resin', 'uncured resin', 'liquid resin', 'resin not cured', 'mek', 'mekp', 'alcohol', 'isopropanol', 'benzin', 'verdunnung', 'verdunner', 'aceton', 'losungsmittel', 'losemittel', 'terpentin', 'essence', 'diluant', 'solvant', 'gasolina', 'disolvente', 'acetona', 'aguarras', 'benzina', 'diluente', 'solvente', 'acetonici', 'benzine', 'terpentine', 'wasbenzine', 'oplosmiddel',
    ],
    waste: 'flammable liquid: by its own waste route',
    note: 'A vacuum motor lights it. Absorb it, ventilate, keep flames away.',
  }),
  entryOf('reactiveMetal', {
    key: 'explosivePowder',
    name: 'explosive or gunpowder',
    synonyms: ['gunpowder', 'black powder', 'explosive', 'explosives', 'flares', 'flare powder', 'schwarzpulver', 'sprengstoff', 'poudre noire', 'explosif', 'polvora', 'explosivo', 'esplosivo', 'buskruit'],
    properties: ['combustible'],
    waste: 'explosive: not by us',
    note: 'Leave it and call those authorised.',
  }),
];

/** Limits used beside the register, named here so that a check can hold them against their source. */
export const WOOD_LIMITS = { hard: [eu(2, 'hardwood dust, inhalable'), uk(3, 'hardwood dust')], soft: [uk(5, 'softwood dust')] } as const;
