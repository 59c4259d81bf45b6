// The core for the browser, in Node: the engine is the same. Each line read is a question as JSON, asked so many times;
// each line told is how many milliseconds each took. The first line told is how long it took to begin.
import { readFileSync } from "node:fs";
import { createInterface } from "node:readline";
import { pathToFileURL } from "node:url";

const [folder] = process.argv.slice(2);
const tell = (what) => process.stdout.write(`${JSON.stringify(what)}\n`);

// A fault in it would be told with the whole of its source.
process.on("uncaughtException", (error) => {
  process.stderr.write(`${String(error).slice(-600)}\n`);
  process.exit(1);
});

const began = performance.now();
const { loadPyodide } = await import(pathToFileURL(`${folder}/pyodide.mjs`).href);
const python = await loadPyodide({ indexURL: folder });
python.unpackArchive(new Uint8Array(readFileSync(`${folder}/core.zip`)), "zip");
const answerText = python.pyimport("conduit.answers").answer_text;
tell(performance.now() - began);

for await (const line of createInterface({ input: process.stdin })) {
  const { question, given, limits, times } = JSON.parse(line);
  const took = [];
  for (let turn = 0; turn < times; turn += 1) {
    // None is the same as one before, of which much would be known.
    const own = given.replace('"trade_size"', `"name": "turn ${turn}", "trade_size"`);
    const from = performance.now();
    const answer = answerText(question, own, limits, "en");
    took.push(performance.now() - from);
    if (!answer.toJs()[0]) throw new Error(answer.toJs()[1].slice(0, 300));
    answer.destroy();
  }
  tell(took);
}
