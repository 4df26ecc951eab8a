declare module 'exifr/dist/lite.esm.mjs' {
  export { gps } from 'exifr';
}
