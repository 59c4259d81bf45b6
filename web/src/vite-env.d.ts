/// <reference types="vite/client" />
/// <reference types="vite-plugin-pwa/client" />

/** The program's, of the build. */
declare const __VERSION__: string;

/** The core for a worker of this build: where its files are served, how large they are, and as they are sent. */
declare const __CORE__: {
  folder: string;
  files: { name: string; bytes: number; sent: number }[];
};
