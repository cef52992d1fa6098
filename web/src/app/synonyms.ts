/** Words of the trade, by the words this program has for the same. */
const others: [string, string][] = [
  ["purse", "budget money cap"],
  ["spend", "cost budget"],
  ["block", "negative exclude stop"],
  ["negative", "block exclude stop words"],
  ["drop", "remove delete reject exclude"],
  ["keep", "accept select include"],
  ["hold", "later maybe pause"],
  ["call", "judge decide label tag"],
  ["keyword", "term query phrase"],
  ["group", "ad set cluster"],
  ["bid", "max cpc price offer"],
  ["lock", "fix freeze"],
  ["customers", "conversions sales leads"],
  ["rate", "conversion cvr"],
  ["how sure", "forecast range risk simulation uncertainty"],
  ["version", "scenario copy what if variant"],
  ["year", "season months annual"],
  ["hand over", "export upload send publish"],
  ["sheet", "report export pdf excel"],
  ["send", "export upload publish"],
  ["gather", "import add keywords research"],
  ["sift", "filter review sort"],
  ["brief", "settings setup business"],
  ["assumption", "settings default parameter"],
  ["arrange", "structure campaigns ad groups"],
  ["fit", "optimise budget bids"],
  ["learn", "results performance actuals"],
  ["practice", "simulation sandbox test market"],
  ["results", "performance actuals report"],
  ["workings", "formula explain why calculation"],
  ["keys", "shortcuts help keyboard"],
  ["filter", "search find"],
  ["words", "tokens ngrams"],
  ["map", "chart scatter plot"],
  ["client", "account customer"],
  ["lamp", "dark night mode theme"],
  ["paper", "light day mode theme"],
  ["page", "landing url site"],
  ["ad", "copy headline creative"],
  ["undo", "back revert"],
  ["close the month", "next month roll over"],
];

/** What else a command may be looked for by. */
export function alsoSaid(name: string): string {
  const said = name.toLowerCase();
  return others.flatMap(([word, also]) => (said.includes(word) ? [also] : [])).join(" ");
}

/** Whether each word of a question begins or stands in what is found by it, in any order. */
export function isMeant(text: string, question: string): boolean {
  const said = text.toLowerCase();
  return question
    .toLowerCase()
    .split(/\s+/)
    .every((word) => said.includes(word));
}
