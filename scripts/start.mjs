import { nodePackages, buildAll } from './lib/setup.mjs';

/** Sets everything up and serves the application until Ctrl+C. */
async function main() {
  nodePackages();
  buildAll();
  const { startPostgres } = await import('./lib/postgres.mjs');
  const { serve } = await import('./lib/serve.mjs');
  const { loadDemo } = await import('./lib/demo.mjs');
  const postgres = await startPostgres();
  let stopping = false;
  let server;
  const stop = async () => {
    if (stopping) return;
    stopping = true;
    await server?.stop();
    postgres.stop();
    process.exit(0);
  };
  process.on('SIGINT', stop);
  process.on('SIGTERM', stop);
  try {
    server = await serve(postgres);
    server.child.once('exit', () => void stop());
    // Behind accounts the store is a company's own: nothing made up is put there.
    if (process.env.TACTRON_ACCOUNTS !== 'on') await loadDemo(server.url);
    console.log('Stop with Ctrl+C.');
  } catch (error) {
    postgres.stop();
    throw error;
  }
}

main().catch((error) => {
  console.error(error.message);
  process.exit(1);
});
