import type { MakeLink } from "./device";
import { lineReader } from "./reading-line";

interface Port {
  open: (options: { baudRate: number }) => Promise<void>;
  close: () => Promise<void>;
  readable: ReadableStream<Uint8Array> | null;
}

interface Serial {
  requestPort: () => Promise<Port>;
}

const SPEED = 9600;
const serial = (): Serial | undefined => (navigator as Navigator & { serial?: Serial }).serial;

export const hasSerial = (): boolean => serial() !== undefined;

/** A device at a serial line that sends its readings line by line (Web Serial). */
export const serialLink: MakeLink = ({ onState, onReading }) => {
  let port: Port | null = null;
  let reader: ReadableStreamDefaultReader<string> | null = null;
  async function listen(from: Port) {
    const take = lineReader(onReading);
    const decoder = new TextDecoderStream() as ReadableWritablePair<string, Uint8Array>;
    reader = from.readable?.pipeThrough(decoder).getReader() ?? null;
    for (let part = await reader?.read(); part && !part.done; part = await reader?.read()) take(part.value);
  }
  return {
    connect: async () => {
      onState("connecting");
      port = (await serial()?.requestPort()) ?? null;
      if (!port) return;
      await port.open({ baudRate: SPEED });
      onState("on");
      listen(port).then(
        () => onState("off"),
        (error: Error) => onState("failed", error.message),
      );
    },
    disconnect: () => {
      void reader?.cancel().then(() => port?.close());
      onState("off");
    },
  };
};
