import type { MakeLink, Measures, Reading } from "./device";

/** Where a program on this machine speaks for its devices (`crelda device`). */
export const ADDRESS = "ws://127.0.0.1:8427/";
const LONGEST = 2000;

type Message = ({ type: "reading" } & Reading) | { type: "error"; says: string } | { type: "printed" };

const isNumber = (value: unknown): value is number => typeof value === "number" && Number.isFinite(value);

/** A message of the protocol, or null where it is none. */
export function messageIn(text: unknown): Message | null {
  if (typeof text !== "string" || text.length > LONGEST) return null;
  try {
    const found: Partial<Message & Reading> | null = JSON.parse(text);
    if (found?.type === "printed" || (found?.type === "error" && typeof found.says === "string"))
      return found as Message;
    const isReading =
      found?.type === "reading" &&
      (found.measures === "length" ? ["mm", "in"] : ["deg"]).includes(found.unit ?? "") &&
      isNumber(found.value) &&
      isNumber(found.confidence) &&
      (found.body === undefined || isNumber(found.body));
    return isReading ? (found as Message) : null;
  } catch {
    return null;
  }
}

/** A program on this machine that speaks the documented protocol over a WebSocket; what it is asked to measure. */
export const localProgram =
  (measures: Measures): MakeLink =>
  ({ onState, onReading }) => {
    let socket: WebSocket | null = null;
    let printed: (() => void) | null = null;
    function hear(text: unknown) {
      const message = messageIn(text);
      if (message?.type === "reading") onReading(message);
      if (message?.type === "error") onState("on", message.says);
      if (message?.type === "printed") printed?.();
    }
    const send = (message: object) => socket?.send(JSON.stringify(message));
    return {
      connect: () =>
        new Promise((done, fail) => {
          onState("connecting");
          const opened = new WebSocket(ADDRESS);
          socket = opened;
          let isOpen = false;
          opened.onopen = () => {
            isOpen = true;
            onState("on");
            done();
          };
          opened.onmessage = ({ data }) => hear(data);
          opened.onerror = () => fail(new Error(ADDRESS));
          // One that was never there has failed, which is told already.
          opened.onclose = () => isOpen && socket === opened && onState("off");
        }),
      disconnect: () => {
        const open = socket;
        socket = null;
        open?.close();
        onState("off");
      },
      read: (found) => send({ type: "read", measures, ...(found === undefined ? {} : { found }) }),
      print: (lines) =>
        new Promise((done) => {
          printed = done;
          send({ type: "print", lines });
        }),
    };
  };
