/** After the last test of a project. */
export default function down(): void {
  (globalThis as { closeCluster?: () => void }).closeCluster?.();
}
