import { openCluster } from './cluster';

/** Before the first test of a project. */
export default async function up(): Promise<void> {
  (globalThis as { closeCluster?: () => void }).closeCluster = await openCluster();
}
