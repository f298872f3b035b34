import { startTypeScript, type Child } from './children';
import { keepRunning } from './keepRunning';
import { freePort } from './ports';
import { startWebServer } from './webServer';

export interface SiteOptions {
  /** Address of the application's own login. */
  readonly databaseUrl: string;
  readonly mode: 'production' | 'demo' | 'test';
  readonly distDir: string;
  readonly webPort?: number;
  /** Web server processes; one when absent. */
  readonly webProcesses?: number;
  readonly dev?: boolean;
  readonly supplierFile?: string;
  /** The supplier's calendar day; its own when absent. */
  readonly supplierToday?: string;
  readonly supplierSlowMs?: number;
  /** After which orders are shipped by themselves, ms; when told to where absent. */
  readonly supplierShipAfterMs?: number;
  /** What the seller's stand-in asks from the start, as JSON; no seller where absent. */
  readonly sellerFirst?: string;
  /** A slit-lamp camera stands in the room. */
  readonly camera?: boolean;
  readonly demoPassword?: string;
  readonly logFile?: string;
  readonly trustProxy?: boolean;
  /** What ends by itself is started again. */
  readonly keepRunning?: boolean;
}

/** Supplier stand-in, jobs and web server on one database. */
export interface Site {
  readonly url: string;
  readonly supplierUrl: string;
  /** The camera in the room; null for none. */
  readonly cameraUrl: string | null;
  readonly web: { stop(): Promise<void>; start(): Promise<void> };
  readonly jobs: { stop(signal?: NodeJS.Signals): Promise<void>; start(): Promise<void> };
  /** Ends it all; by a signal, at once. */
  stop(signal?: NodeJS.Signals): Promise<void>;
}

export async function startSite(options: SiteOptions): Promise<Site> {
  const supplierPort = await freePort();
  const sellerPort = options.sellerFirst === undefined ? null : await freePort();
  const cameraPort = options.camera ? await freePort() : null;
  const webPort = options.webPort ?? (await freePort());
  const supplierUrl = `http://127.0.0.1:${supplierPort}`;
  const log = options.logFile ? { logFile: options.logFile } : {};
  const env: Record<string, string> = {
    KEENFIT_MODE: options.mode,
    KEENFIT_DATABASE_URL: options.databaseUrl,
    KEENFIT_SUPPLIER_URL: supplierUrl,
    ...(sellerPort === null ? {} : { KEENFIT_SELLER_URL: `http://127.0.0.1:${sellerPort}` }),
    ...(cameraPort === null ? {} : { KEENFIT_CAMERA_URL: `http://127.0.0.1:${cameraPort}` }),
    KEENFIT_DIST: options.distDir,
    ...(options.demoPassword ? { KEENFIT_DEMO_PASSWORD: options.demoPassword } : {}),
    ...(options.trustProxy ? { KEENFIT_TRUST_PROXY: '1' } : {}),
  };
  const begin = (name: string, start: () => Promise<Child>): Promise<Pick<Child, 'stop'>> => (options.keepRunning ? keepRunning(name, start) : start());
  const startWeb = () =>
    begin('the web server', () => startWebServer({ port: webPort, processes: options.webProcesses ?? 1, dev: options.dev ?? false, env, ...log }));
  const startJobs = () => begin('the jobs process', () => startTypeScript('src/jobs/main.ts', { env, ...log, readyWhen: /jobs ready/ }));
  const startSupplier = () =>
    startTypeScript('src/standins/supplier/main.ts', {
      ...log,
      readyWhen: /supplier ready/,
      env: {
        KEENFIT_SUPPLIER_PORT: String(supplierPort),
        ...(options.supplierFile ? { KEENFIT_SUPPLIER_FILE: options.supplierFile } : {}),
        ...(options.supplierToday ? { KEENFIT_SUPPLIER_TODAY: options.supplierToday } : {}),
        ...(options.supplierShipAfterMs ? { KEENFIT_SUPPLIER_SHIP_AFTER_MS: String(options.supplierShipAfterMs) } : {}),
        ...(options.supplierSlowMs ? { KEENFIT_SUPPLIER_SLOW_MS: String(options.supplierSlowMs) } : {}),
      },
    });
  const startSeller = () =>
    startTypeScript('src/standins/seller/main.ts', {
      ...log,
      readyWhen: /seller ready/,
      env: { KEENFIT_SELLER_PORT: String(sellerPort), KEENFIT_SELLER_FIRST: options.sellerFirst ?? '[]' },
    });
  const startCamera = () =>
    startTypeScript('src/standins/camera/main.ts', { ...log, readyWhen: /camera ready/, env: { KEENFIT_CAMERA_PORT: String(cameraPort) } });
  const camera = cameraPort === null ? null : await begin('the camera stand-in', startCamera);
  const seller = sellerPort === null ? null : await begin('the seller stand-in', startSeller);
  const supplier = await begin('the supplier stand-in', startSupplier);
  let [jobs, web] = await Promise.all([startJobs(), startWeb()]);
  return {
    url: `http://127.0.0.1:${webPort}`,
    supplierUrl,
    cameraUrl: cameraPort === null ? null : `http://127.0.0.1:${cameraPort}`,
    web: {
      stop: () => web.stop(),
      start: async () => {
        web = await startWeb();
      },
    },
    jobs: {
      stop: (signal) => jobs.stop(signal),
      start: async () => {
        jobs = await startJobs();
      },
    },
    stop: async (signal) => {
      await web.stop(signal);
      await jobs.stop(signal);
      await supplier.stop(signal);
      await seller?.stop(signal);
      await camera?.stop(signal);
    },
  };
}
