declare module 'exifr/dist/mini.esm.mjs' {
  export { gps } from 'exifr';
}
