// npm run dev: the application with changes shown as they are made.
import { join, resolve } from 'node:path';
import { installPackages, ROOT, run } from './ready.mjs';

installPackages();
run('npx', ['vite', 'dev', '--host', '127.0.0.1', '--port', process.env.PORT ?? '4310'], {
  cwd: join(ROOT, 'app'),
  env: {
    ...process.env,
    MIRROT_DATA: resolve(ROOT, process.env.MIRROT_DATA ?? 'data'),
    MIRROT_SHIPPED: join(ROOT, 'demo', 'pictures'),
    MIRROT_EXERCISES: join(ROOT, 'demo', 'exercises'),
  },
});
