import { makePlotIntake } from './plot-intake.js';
import { makePlotCheck } from './plot-check.js';
import { ServerClient } from './server-client.js';
import type { StandIns } from './office.js';
import { demoSignIn } from './office.js';
import { makeWorld } from './world.js';

/** Everything that the demo shows: the world of Larkmere, and the page on which people ask for a plot. */
export async function makeDemo(base: string, standIns: StandIns): Promise<void> {
  await makeWorld(base, standIns);
  const server = new ServerClient(base);
  await server.send('POST', '/api/account/sign-in', { email: demoSignIn.email, password: demoSignIn.password });
  await makePlotIntake(server);
  await makePlotCheck(server);
}
