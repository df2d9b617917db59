import { addressOf, takePlace } from './lib/running.mjs';
import { nodePackages, buildAll } from './lib/setup.mjs';

/** A server that ends this often within a minute is not started again. */
const MOST_ENDS = 5;

/** Sets everything up and serves the application until Ctrl+C. */
async function main() {
  const place = takePlace();
  if (place.other) {
    const url = await addressOf(place.other);
    console.log(
      url
        ? `Tactron is running already: ${url}  (process ${place.other.pid}). Stop that one with Ctrl+C where it was started.`
        : `Another start (process ${place.other.pid}) is still setting up.`,
    );
    return;
  }
  process.once('exit', place.leave);
  nodePackages();
  buildAll();
  const { startPostgres } = await import('./lib/postgres.mjs');
  const { serve } = await import('./lib/serve.mjs');
  const { loadDemo } = await import('./lib/demo.mjs');
  // Nobody else serves this folder: a database that still runs was left by a start that was killed, and is this one's to stop.
  const postgres = await startPostgres('pg', { adopt: true });
  let stopping = false;
  let server;
  const stop = async (code = 0) => {
    if (stopping) return;
    stopping = true;
    await server?.stop();
    postgres.stop();
    process.exit(code);
  };
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void stop());
  const ends = [];
  const begin = async (options) => {
    server = await serve(postgres, options);
    place.tell({ url: server.url, port: server.port });
    server.child.once('exit', (code, signal) => {
      if (!stopping) void again(code ?? signal);
    });
  };
  const again = async (why) => {
    ends.push(Date.now());
    if (ends.filter((t) => t > Date.now() - 60_000).length >= MOST_ENDS) {
      console.error(
        `The server ended again (${why}). What it last said stands above. Nothing is lost.`,
      );
      return stop(1);
    }
    console.error(`The server ended (${why}). It is started again …`);
    await begin({ port: server.port }).catch((error) => {
      console.error(error.message);
      return stop(1);
    });
  };
  try {
    await begin();
    // Behind accounts the store is a company's own: nothing made up is put there.
    if (process.env.TACTRON_ACCOUNTS !== 'on') await loadDemo(server.url);
    console.log('Stop with Ctrl+C.');
  } catch (error) {
    if (!stopping) postgres.stop();
    throw error;
  }
}

main().catch((error) => {
  console.error(error.message);
  process.exit(1);
});
