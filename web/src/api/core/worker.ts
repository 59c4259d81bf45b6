/** A worker in which the core runs: Python in the browser, and questions answered one after the other. */

import type { PyodideAPI } from "pyodide";
import type { Asked, Begin, Begun, Told } from "./asking";

/** How the core answers: whether there is an answer, and it, or the refusal, as JSON. */
type AnswerText =
  | ((...given: string[]) => { toJs: () => [boolean, string]; destroy: () => void })
  | undefined;

let answerText: Promise<AnswerText> | undefined;

async function begun(folder: string): Promise<AnswerText> {
  const { loadPyodide }: { loadPyodide: (options: { indexURL: string }) => Promise<PyodideAPI> } =
    await import(/* @vite-ignore */ `${folder}pyodide.mjs`);
  const [python, core] = await Promise.all([
    loadPyodide({ indexURL: folder }),
    fetch(`${folder}core.zip`).then((answer) => answer.arrayBuffer()),
  ]);
  python.unpackArchive(core, "zip");
  return python.pyimport("conduit.answers").answer_text;
}

self.onmessage = async ({ data }: MessageEvent<Begin | Asked>) => {
  if ("folder" in data) {
    answerText = begun(data.folder);
    const begin = (told: Begun) => self.postMessage(told);
    answerText.then(
      () => begin({ ready: true }),
      (error: unknown) => begin({ broken: String(error) }),
    );
    return;
  }
  const { id, question, given, limits, language } = data;
  let told: Told;
  try {
    const answer = (await answerText)?.(question, given, limits, language);
    const [found, text] = answer?.toJs() ?? [false, ""];
    answer?.destroy();
    told = { id, found, text };
  } catch (error) {
    told = { id, failed: String(error) };
  }
  self.postMessage(told);
};
