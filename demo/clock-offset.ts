// Prints the demo's clock offset for bin/demo.
import { demoOffsetMs } from './clock';

console.log(String(demoOffsetMs(Date.now())));
