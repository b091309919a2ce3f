/**
 * What an occupational hygienist would require of what people type. Written before the register was looked at for it.
 * `refused`: not with this application's guidance. `contained`, `controlled`, `plain`: opened like that. `least` and `most`
 * span what a careful colleague would accept. Source: handbook of the trade, sections 9, 18 and 21, HSE and OSHA practice,
 * from memory; common practice, no published source, where none of them speaks.
 */
export type Required = 'plain' | 'controlled' | 'contained' | 'refused';

export interface Phrase {
  readonly text: string;
  readonly least: Required;
  readonly most: Required;
}

const all = (least: Required, most: Required, texts: string): readonly Phrase[] =>
  texts
    .split(/[\n;]/)
    .map((t) => t.trim())
    .filter((t) => t !== '')
    .map((text) => ({ text, least, most }));

export const PHRASES: readonly Phrase[] = [
  // Asbestos, by name, short form and language, alone and beside something harmless.
  ...all(
    'refused',
    'refused',
    `asbestos; asbestos lagging; ACM from the boiler room; bits of AIB; AC sheet dust, 1970s garage; white asbestos rope
    Asbestzement; plaque amiante ciment; polvo de amianto; plyta azbest; oak and asbestos; asbetos board; asbestoss
    blue asbestos lagging and sawdust; chrysotile gasket; crocidolite; sprayed limpet coating; asbestos insulating board, broken
    amosite boards; old pipe lagging; millboard off the stove; rope seals, old boiler; textured coating 1985
    old vinyl tiles with black adhesive; brake dust; clutch linings; asbest dakplaat; amiante; lastre di amianto`,
  ),
  // Fire, explosion, poison gas: never in a vacuum not built for it.
  ...all(
    'refused',
    'refused',
    `magnesium swarf; Mg chips; oak and Mg mixed; titanium turnings; Ti; Ti and oak; zirconium; Zr powder; ally filings
    aluminium dust; alu; alu swarf and pine; Al powder; aluminum grinding dust; Aluminiumspäne; polvo de aluminio; Li; lithium
    lithium battery debris; hot ash; embers from the stove; warm ashes; fireplace ash; sparks; welding slag, still warm
    oily rags; petrol; spilled gasoline; thinners; acetone; white spirit; resin not cured; styrene; methylated spirit
    diesel spill; petrol in bilge water; glowing cigarette ends; barbecue coals; mercury; quicksilver; Hg from a thermometer; broken thermometer
    potassium permanganate; organic peroxide; MEKP catalyst; bleaching powder; ammonium nitrate; gunpowder; fireworks powder; flare powder
    black powder; calcium carbide; sodium metal; oxidiser; pool chlorine granules; sodium chlorate; nitrocellulose; rust and aluminium`,
  ),
  // Lead, chromate, cadmium and their like.
  ...all(
    'contained',
    'contained',
    `lead paint; red lead; Pb; Pb paint flakes; lead primer scrapings; old paint; old primer off the keel; old varnish and paint, 1960s boat
    chromate primer; zinc chromate; Cr6; chrome VI; hexavalent chromium; cad plating; Cd; cadmium bolts; Be copper; beryllium
    Bleifarbe; Mennige; peinture au plomb; pintura con plomo; vernice al piombo; loodverf; minium; leaded window cames
    lead flashing; solder dross with lead; lead keel filings; leed paint; led paint flakes off the window; antifouling; antifoul scrapings
    copper antifouling; bottom paint; old antifouling with TBT; arsenic; CCA treated timber; nickel powder; cobalt; stainless weld fume
    TIG fume on stainless; fume from welding 316; hardmetal grinding; tungsten carbide dust; soot; chimney soot; fire damage soot
    refractory ceramic fibre; kiln lining; coal tar; creosote timber; chromium plating sludge; lead acid battery plates`,
  ),
  // Silica, by the US limit HEPA: the stricter.
  ...all(
    'contained',
    'contained',
    `concrete; concrete dust from chasing; mortar raking; brick dust; bricks; sandstone; granite worktop; quartz worktop; grout; tile grout
    ceramic tiles; slate; screed; RCS; silica; fibre cement board, new; cement; Beton; poussière de béton; polvo de hormigón; calcestruzzo
    steenstof; render; block paving; limestone; terrazzo; engineered stone; sand; sandblasting sand; conrete; concreet and plaster
    beach sand from the deck; tuckpointing; floor screed and glue; roof tiles; Ziegelstaub; Mörtel; drilling into concrete`,
  ),
  // Unknown, unnamed, dangerous until named; wording that names a shape and no material.
  ...all(
    'contained',
    'refused',
    `white powder; unknown powder; shavings; filings; fines; chips; swarf; turnings; dust from the old workshop; blue stuff; powder from a drum
    70s house dust; 60's ceiling; textured ceiling; 1930s plaster; old plaster ceiling; something from bay 3; chemical; xyzzy; mixed waste
    pesticide; rat poison; weed killer powder; pigment; dye powder; insulation; old insulation; loft insulation 1975
    metal fines; metal powder; metal dust; grey powder; toner; battery dust; catalyst powder; pharmacy powder; tablets, crushed
    isocyanate; two-pack paint sanding, not cured; polyurethane foam cutting with isocyanate`,
  ),
  // Biological.
  ...all(
    'contained',
    'contained',
    `mould; mold from the shower; black mould; pigeon droppings; bird poo; mouse droppings; sewage; rat droppings; guano; Schimmel; moisissure
    drain backing up, dried; bat droppings`,
  ),
  // Wood, boards, plaster, filler, fibre: M class, mask, no dry sweeping.
  ...all(
    'controlled',
    'controlled',
    `oak; oak dust; oak shavings; pine chips; mdf; MDF edges; plywood; softwood; hardwood; teak decking; iroko; beech; ash wood; birch ply
    chipboard; particle board; OSB; laminate flooring; walnut; mahogany; sapele; larch; spruce; cedar; bamboo; cork flooring; sawdust
    wood shavings from the planer; Eichenstaub; Holzstaub; sciure de bois; serrin; segatura; zaagsel; okae dust; mahogony
    drywall; plasterboard; plaster; joint compound; gypsum; plaster board; wallboard sanding; Gipskarton; plâtre; cartongesso; fillers
    epoxy filler, cured; fairing filler; polyester filler; body filler; glass fibre; fibreglass; GRP; GRP laminate sanding; gelcoat, cured
    mineral wool, new; rock wool; glass wool; flour; sugar; icing sugar; coffee dust; grain dust; tea dust; spices
    water based paint of this year; new paint; acrylic paint, new; powder coating; varnish, new; rosin flux fume; solder fume, lead-free
    laser fume from acrylic; plastic weld fume; carbon fibre; CF trimming; aramid; nylon powder; PVC; polystyrene; rubber dust`,
  ),
  // Liquids.
  ...all(
    'controlled',
    'contained',
    `bilge water; slurry; slurry from the wet saw; coolant; coolant mist; flood water; rain water in the cabin; leaky pipe water; soapy water`,
  ),
  // Nuisance dust.
  ...all(
    'plain',
    'plain',
    `house dust; general dust; dust and fluff; pet hair; dog hair; carpet fluff; paper dust; cardboard; dry leaves; garden soil; lint; crumbs
    cotton fluff; cobwebs; hair; straw; nothing; nothing yet; pollen; salt; packing chips; confetti`,
  ),
  ...all(
    'plain',
    'controlled',
    `steel filings; mild steel; steel swarf; iron filings; brass turnings; brass; stainless filings; rust; rust flakes; cast iron dust; Stahlstaub
    aluminium oxide paper; alox paper grit; abrasive grit; sanding disc grit; chalk; talc; soil and grass; potting compost; ash tree leaves`,
  ),
  // A second list, written after the register had been completed for the first one and before it was looked at again.
  ...all(
    'refused',
    'refused',
    `sanding Al hull; magnesium wheel dust; thermite residue; titanium fines with oak; mg; al, pine, ti; lithium cells; asbestos gaskets; AIB soffit boards; old asbestos roof; petroleum spirit; hot coals; embers in sawdust; dust with sparks in it; calcium hypochlorite; fuel from the bilge; benzine lap; broken fluorescent tubes; TNT; old lagging off pipes`,
  ),
  ...all(
    'contained',
    'contained',
    `old lead paint on windows; paint, 1950s; cadmium plated bolts; chrome VI primer; brick and mortar; stone chippings; quartzite; marble worktop cutting; concrete slab grinding; mouse poo; dead pigeon; raw sewage; red lead primer; beryllium copper; tungsten carbide tips; welding stainless pipes; MIG on 304; fly ash cement; mouldy plasterboard; kiln bricks`,
  ),
  ...all(
    'contained',
    'refused',
    `mystery dust; magic powder; zz; a b c; grey stuff from the drum; lab powder; 80s ceiling tiles; 1965 floor tiles; filings only; fines; ground metal; vermiculite, old; catalyst; nanotubes; graphene; explosive residue; bq`,
  ),
  ...all(
    'controlled',
    'controlled',
    `oak boards; ash boards; Fichtenstaub; planed larch; sanded maple table; MDF panels; drywall sanding; skim plaster; gypsum boards; fibreglass hull sanding; epoxy fairing; walnut door; plywood offcuts; teak deck; polyester gelcoat; wheat flour; powdered sugar; carbon fiber mast; perlite filler; acrylic sheet; nylon turnings; solder smoke; rosin; beech chips; douglas fir beams`,
  ),
  ...all(
    'plain',
    'plain',
    `fluff; cat hair; sweepings of leaves; paper shreds; cardboard boxes; soil; house dirt; rope fibres; wool fluff; sand paper; crumbs and hair`,
  ),
  ...all(
    'plain',
    'controlled',
    `steel grindings; iron swarf; stainless chips; brass filings; steel turnings; mild steel plate; rust and steel; rusty iron; chalk dust`,
  ),
];
