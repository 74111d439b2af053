/** Over an encrypted connection, as telephones have it, the program opens without one too. This machine itself has no need. */
export function openWithoutConnection() {
  if (location.protocol !== 'https:' || !('serviceWorker' in navigator)) return
  // A browser that does not trust the certificate refuses; then the program works with a connection only.
  navigator.serviceWorker.register('/sw.js').catch(() => undefined)
}
