import { growYard } from './yard-of-size';
console.log(growYard('/tmp/big.sqlite', {machines: Number(process.argv[2]), years: Number(process.argv[3])}, new Date().toISOString()));
