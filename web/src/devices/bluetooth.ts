import type { MakeLink } from "./device";
import { lineReader } from "./reading-line";

interface Characteristic extends EventTarget {
  value?: DataView;
  startNotifications: () => Promise<unknown>;
}

interface Peripheral extends EventTarget {
  gatt: {
    connect: () => Promise<{
      getPrimaryService: (
        id: string,
      ) => Promise<{ getCharacteristic: (id: string) => Promise<Characteristic> }>;
    }>;
    disconnect: () => void;
  };
}

interface Bluetooth {
  requestDevice: (options: { filters: { services: string[] }[] }) => Promise<Peripheral>;
}

// The service and the characteristic that docs/devices.md describes: each value is a piece of a line.
const SERVICE = "c4e1da00-5b1c-4f0a-9d27-6d0f2a3b7c01";
const LINES = "c4e1da01-5b1c-4f0a-9d27-6d0f2a3b7c01";
const bluetooth = (): Bluetooth | undefined => (navigator as Navigator & { bluetooth?: Bluetooth }).bluetooth;

export const hasBluetooth = (): boolean => bluetooth() !== undefined;

/** A device that sends its readings over the air, line by line (Web Bluetooth). */
export const bluetoothLink: MakeLink = ({ onState, onReading }) => {
  let device: Peripheral | null = null;
  return {
    connect: async () => {
      onState("connecting");
      device = (await bluetooth()?.requestDevice({ filters: [{ services: [SERVICE] }] })) ?? null;
      if (!device) return;
      device.addEventListener("gattserverdisconnected", () => onState("off"));
      const service = await (await device.gatt.connect()).getPrimaryService(SERVICE);
      const lines = await service.getCharacteristic(LINES);
      const take = lineReader(onReading);
      const decoder = new TextDecoder();
      lines.addEventListener("characteristicvaluechanged", () => {
        if (lines.value) take(decoder.decode(lines.value, { stream: true }));
      });
      await lines.startNotifications();
      onState("on");
    },
    disconnect: () => {
      device?.gatt.disconnect();
      onState("off");
    },
  };
};
