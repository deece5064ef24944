/** Made-up register rows from a seed, so that two runs measure the same work. */

/** @param {number} seed */
function random(seed) {
  let state = seed >>> 0;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 4294967296;
  };
}

const surnames = [
  "Lindqvist",
  "Okafor",
  "Meunier",
  "O'Neil-Smith",
  "van der Berg",
  "Sørensen",
  "Doğan",
  "Weiß",
  "Łukasik",
  "Tanaka",
];
const given = ["Åsa", "Chidi", "Luc", "Mary", "Jan", "Ida", "İpek", "Jörg", "Świętosława", "Mei"];
const genera = ["alnus", "SALIX", "Quercus", "betula", "Fagus", "carex", "Viola", "tilia"];
const epithets = ["glutinosa", "caprea", "robur", "pendula", "sylvatica", "nigra", "odorata", "cordata"];
const remarks = [
  "in flower",
  "sterile",
  "leaf missing",
  "on wet rock",
  "galls on leaf",
  "Fruit ripe",
  "photo only",
  "duplicate sent",
  "near the old mill",
  "edge of a meadow",
];

/**
 * @param {number} rows
 * @param {number} seed
 */
export function register(rows, seed) {
  const next = random(seed);
  const pick = (/** @type {readonly string[]} */ list) => list[Math.floor(next() * list.length)];
  const two = (/** @type {number} */ n) => String(n).padStart(2, "0");
  const columns = { collector: [], shelf: [], taxon: [], remarks: [], collected: [] };
  for (let i = 0; i < rows; i++) {
    columns.collector.push(`${pick(surnames)}, ${pick(given)}`);
    columns.shelf.push(`HB#${String(i).padStart(6, "0")}#${pick(["A", "B", "C"])}`);
    columns.taxon.push(`${next() < 0.2 ? " " : ""}${pick(genera)} ${next() < 0.2 ? " " : ""}${pick(epithets)}`);
    columns.remarks.push(Array.from({ length: 2 + Math.floor(next() * 4) }, () => pick(remarks)).join("; "));
    columns.collected.push(
      `${1980 + Math.floor(next() * 45)}-${two(1 + Math.floor(next() * 12))}-${two(1 + Math.floor(next() * 28))}`,
    );
  }
  return columns;
}
