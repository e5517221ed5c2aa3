import { pathToFileURL } from 'node:url';
import { bundled } from './bundle.mjs';

// Runs one of the programs that are bundled in this process: `node bin/lib/program.mjs server/setup --empty`.
const [node = '', , program = '', ...rest] = process.argv;
const file = await bundled(program);
process.argv = [node, file, ...rest];
await import(pathToFileURL(file).href);
