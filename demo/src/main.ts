import { demoSignIn, makeWorld } from './world.js';

/** Makes the world on a running server. Arguments: its address, and the port of the stand-in post office. */
const [base, smtpPort] = process.argv.slice(2);
if (!base || !smtpPort) {
  console.error('Usage: node demo/dist/main.js ADDRESS SMTP-PORT');
  process.exit(2);
}
await makeWorld(base, Number(smtpPort));
console.log(`The Larkmere world is made. Sign in as ${demoSignIn.email} with ${demoSignIn.password}`);
