/**
 * Medicines that matter to a lens, by generic name. Each row carries the letter code of its class in the
 * Anatomical Therapeutic Chemical classification of the World Health Organization (from memory); the grouping by
 * effect on the eye is common practice. Advice only: the prescriber decides, and a pharmacist knows more.
 */
export type MedicineGroup =
  | 'anticholinergic'
  | 'antihistamine'
  | 'antipsychotic'
  | 'retinoid'
  | 'tetracycline'
  | 'antidepressant'
  | 'diuretic'
  | 'sulfonamideDiuretic'
  | 'topiramate'
  | 'betaBlocker'
  | 'oestrogen'
  | 'decongestant'
  | 'dupilumab'
  | 'noted'
  | 'tintsLens'
  | 'immunity'
  | 'drynessDrops';

export interface Medicine {
  readonly name: string;
  readonly group: MedicineGroup;
  readonly atc: string;
}

/** Classes of the classification that make up each group. */
export const ATC_OF_GROUP: Readonly<Record<MedicineGroup, readonly string[]>> = {
  anticholinergic: ['A03', 'A04AD', 'G04BD', 'N04A', 'R03BB'],
  antihistamine: ['R06A', 'N05BB'],
  antipsychotic: ['N05A'],
  retinoid: ['D10BA', 'D05BB', 'D11AH04'],
  tetracycline: ['J01AA'],
  antidepressant: ['N06A'],
  diuretic: ['C03D'],
  sulfonamideDiuretic: ['C03A', 'C03B', 'C03C', 'S01EC01'],
  topiramate: ['N03AX11'],
  betaBlocker: ['C07'],
  oestrogen: ['G03A', 'G03C'],
  decongestant: ['R01BA', 'R01AA'],
  dupilumab: ['D11AH05'],
  noted: ['C01BD01', 'P01BA'],
  tintsLens: ['J04AB', 'A07EC01', 'G04BX06'],
  immunity: ['L04A', 'H02AB'],
  drynessDrops: ['S01XA'],
};

const of = (group: MedicineGroup, rows: Readonly<Record<string, string>>): Medicine[] => Object.entries(rows).map(([name, atc]) => ({ name, group, atc }));

export const MEDICINES: readonly Medicine[] = [
  ...of('anticholinergic', {
    oxybutynin: 'G04BD04',
    tolterodine: 'G04BD07',
    solifenacin: 'G04BD08',
    darifenacin: 'G04BD10',
    fesoterodine: 'G04BD11',
    trospium: 'G04BD09',
    trihexyphenidyl: 'N04AA01',
    benzatropine: 'N04AC01',
    benztropine: 'N04AC01',
    procyclidine: 'N04AA04',
    'hyoscine butylbromide': 'A03BB01',
    hyoscine: 'A04AD01',
    scopolamine: 'A04AD01',
    dicycloverine: 'A03AA07',
    dicyclomine: 'A03AA07',
    atropine: 'A03BA01',
    ipratropium: 'R03BB01',
    tiotropium: 'R03BB04',
  }),
  ...of('antihistamine', {
    cetirizine: 'R06AE07',
    levocetirizine: 'R06AE09',
    loratadine: 'R06AX13',
    desloratadine: 'R06AX27',
    fexofenadine: 'R06AX26',
    chlorphenamine: 'R06AB04',
    chlorpheniramine: 'R06AB04',
    diphenhydramine: 'R06AA02',
    promethazine: 'R06AD02',
    hydroxyzine: 'N05BB01',
    bilastine: 'R06AX29',
    rupatadine: 'R06AX28',
    ebastine: 'R06AX22',
    ketotifen: 'R06AX17',
    doxylamine: 'R06AA09',
    cyproheptadine: 'R06AX02',
  }),
  ...of('antipsychotic', {
    olanzapine: 'N05AH03',
    quetiapine: 'N05AH04',
    clozapine: 'N05AH02',
    risperidone: 'N05AX08',
    aripiprazole: 'N05AX12',
    paliperidone: 'N05AX13',
    ziprasidone: 'N05AE04',
    haloperidol: 'N05AD01',
    chlorpromazine: 'N05AA01',
    fluphenazine: 'N05AB02',
    perphenazine: 'N05AB03',
    amisulpride: 'N05AL05',
    lurasidone: 'N05AE05',
  }),
  ...of('retinoid', {
    isotretinoin: 'D10BA01',
    acitretin: 'D05BB02',
    alitretinoin: 'D11AH04',
  }),
  ...of('tetracycline', {
    doxycycline: 'J01AA02',
    minocycline: 'J01AA08',
    lymecycline: 'J01AA04',
    tetracycline: 'J01AA07',
    oxytetracycline: 'J01AA06',
  }),
  ...of('antidepressant', {
    amitriptyline: 'N06AA09',
    nortriptyline: 'N06AA10',
    imipramine: 'N06AA02',
    clomipramine: 'N06AA04',
    sertraline: 'N06AB06',
    fluoxetine: 'N06AB03',
    citalopram: 'N06AB04',
    escitalopram: 'N06AB10',
    paroxetine: 'N06AB05',
    fluvoxamine: 'N06AB08',
    venlafaxine: 'N06AX16',
    duloxetine: 'N06AX21',
    desvenlafaxine: 'N06AX23',
    mirtazapine: 'N06AX11',
    bupropion: 'N06AX12',
    trazodone: 'N06AX05',
    vortioxetine: 'N06AX26',
  }),
  ...of('sulfonamideDiuretic', {
    furosemide: 'C03CA01',
    frusemide: 'C03CA01',
    bumetanide: 'C03CA02',
    torasemide: 'C03CA04',
    torsemide: 'C03CA04',
    hydrochlorothiazide: 'C03AA03',
    bendroflumethiazide: 'C03AA01',
    chlortalidone: 'C03BA04',
    chlorthalidone: 'C03BA04',
    indapamide: 'C03BA11',
    metolazone: 'C03BA08',
    acetazolamide: 'S01EC01',
  }),
  ...of('diuretic', {
    spironolactone: 'C03DA01',
    eplerenone: 'C03DA04',
    amiloride: 'C03DB01',
    triamterene: 'C03DB02',
  }),
  ...of('topiramate', { topiramate: 'N03AX11' }),
  ...of('betaBlocker', {
    propranolol: 'C07AA05',
    sotalol: 'C07AA07',
    nadolol: 'C07AA12',
    atenolol: 'C07AB03',
    metoprolol: 'C07AB02',
    bisoprolol: 'C07AB07',
    nebivolol: 'C07AB12',
    carvedilol: 'C07AG02',
    labetalol: 'C07AG01',
  }),
  ...of('oestrogen', {
    ethinylestradiol: 'G03CA01',
    'ethinyl estradiol': 'G03CA01',
    estradiol: 'G03CA03',
    oestradiol: 'G03CA03',
    'conjugated estrogens': 'G03CA57',
    levonorgestrel: 'G03AC03',
    desogestrel: 'G03AC09',
    norethisterone: 'G03AC01',
    norethindrone: 'G03AC01',
    drospirenone: 'G03AC10',
  }),
  ...of('decongestant', {
    pseudoephedrine: 'R01BA02',
    phenylephrine: 'R01BA03',
    xylometazoline: 'R01AA07',
    oxymetazoline: 'R01AA05',
  }),
  ...of('dupilumab', { dupilumab: 'D11AH05' }),
  ...of('noted', { amiodarone: 'C01BD01', hydroxychloroquine: 'P01BA02', chloroquine: 'P01BA01' }),
  ...of('drynessDrops', { lifitegrast: 'S01XA25' }),
  ...of('tintsLens', {
    rifampicin: 'J04AB02',
    rifampin: 'J04AB02',
    rifabutin: 'J04AB04',
    rifapentine: 'J04AB05',
    sulfasalazine: 'A07EC01',
    phenazopyridine: 'G04BX06',
  }),
  ...of('immunity', {
    ciclosporin: 'L04AD01',
    cyclosporine: 'L04AD01',
    cyclosporin: 'L04AD01',
    tacrolimus: 'L04AD02',
    azathioprine: 'L04AX01',
    methotrexate: 'L04AX03',
    'mycophenolic acid': 'L04AA06',
    adalimumab: 'L04AB04',
    etanercept: 'L04AB01',
    infliximab: 'L04AB02',
    prednisolone: 'H02AB06',
    prednisone: 'H02AB07',
    dexamethasone: 'H02AB02',
  }),
];

/** What people say instead of a name: the class, or what it is for. */
const CLASS_WORDS: Readonly<Record<string, MedicineGroup>> = {
  anticholinergic: 'anticholinergic',
  'bladder tablet': 'anticholinergic',
  antihistamine: 'antihistamine',
  'allergy tablet': 'antihistamine',
  'hay fever tablet': 'antihistamine',
  antipsychotic: 'antipsychotic',
  'acne tablet': 'retinoid',
  'acne medicine': 'retinoid',
  contraceptive: 'oestrogen',
  'contraceptive pill': 'oestrogen',
  'birth control pill': 'oestrogen',
  'the pill': 'oestrogen',
  hrt: 'oestrogen',
  decongestant: 'decongestant',
  'nasal decongestant': 'decongestant',
  antidepressant: 'antidepressant',
  diuretic: 'diuretic',
  'water tablet': 'diuretic',
  'water pill': 'diuretic',
  'beta blocker': 'betaBlocker',
  betablocker: 'betaBlocker',
  immunosuppressant: 'immunity',
  steroid: 'immunity',
};

/** Doses and how often they are taken, wherever they stand. */
const DOSING =
  /\b(\d+([.,]\d+)?\s*(mg|mcg|µg|g|ml|iu|units?|%)?(\s*\/\s*\d*\s*(ml|day|d))?|x|a|per|of|in|the|at|and|day|days|daily|week|weekly|fortnight|month|monthly|morning|mornings|evening|evenings|night|nights|nightly|bedtime|noon|once|twice|thrice|one|two|three|four|times?|every|each|other|hours?|hourly|as|when|if|needed|need|required|necessary|prn|od|bd|bid|tds|tid|qds|qid|po|mane|nocte|dose|doses|low|high|slow|modified|extended|prolonged|release|mr|sr|er|xr|xl|la|cr)\b/g;
/** Salts and forms that stand behind a name. */
const FORM =
  /\b(hydrochloride|hcl|hydrobromide|maleate|fumarate|tartrate|succinate|citrate|sodium|potassium|besilate|besylate|mesilate|mesylate|phosphate|sulfate|sulphate|acetate|tablets?|capsules?|caplets?|pills?|gel|cream|ointment|lotion|foam|patch|patches|spray|inhaler|nasal|oral|eye|ophthalmic|topical|drops?|emulsion|solution|suspension|syrup|liquid|injections?|pens?)\b/g;
/** Put into the eye rather than swallowed. */
const IN_THE_EYE = /\b(drops?|ophthalmic|emulsion)\b/;

const letters = (text: string): string => text.toLocaleLowerCase('en').normalize('NFKD').replace(/[̀-ͯ]/g, '');
const words = (text: string): string => text.replace(/[^a-z]+/g, ' ').trim();
const plain = (typed: string): string => words(letters(typed).replace(DOSING, ' ').replace(FORM, ' '));

/**
 * The group of a medicine as typed: a generic name, with dose or salt, or a class. Null when it is not in the
 * table, which says nothing about it.
 * @example medicineGroup('Cetirizine 10 mg') → 'antihistamine'
 */
export function medicineGroup(typed: string): MedicineGroup | null {
  const name = plain(typed);
  const known = MEDICINES.find((m) => m.name === name);
  // By mouth it lowers immunity; as drops it treats dryness.
  if (known?.atc === 'L04AD01' && IN_THE_EYE.test(letters(typed))) return 'drynessDrops';
  if (known) return known.group;
  // A class may be called by what would stand behind a name: a water tablet.
  return (
    [name, words(letters(typed).replace(DOSING, ' ')), words(letters(typed))]
      .flatMap((w) => [w, w.replace(/s$/, '')])
      .map((w) => (Object.hasOwn(CLASS_WORDS, w) ? CLASS_WORDS[w] : undefined))
      .find((g) => g !== undefined) ?? null
  );
}

/** Names that begin as typed, three letters or more. @example medicinesBeginning('cetir')[0].name → 'cetirizine' */
export function medicinesBeginning(typed: string, limit = 4): readonly Medicine[] {
  const start = plain(typed);
  return start.length < 3 ? [] : MEDICINES.filter((m) => m.name.startsWith(start)).slice(0, limit);
}
