/// <reference types="vite/client" />
/// <reference types="vite-plugin-pwa/client" />

/** The program's, of the build. */
declare const __VERSION__: string;
