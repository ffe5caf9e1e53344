import { api, data, type Api } from '$lib/api/client';

// Fetched when first wanted: most never use one.
const browser = () => import('@simplewebauthn/browser');

/** Whether this browser can use passkeys here: over a secure line, and at a place with a name, which they are bound to. */
export const canUsePasskeys = () => window.isSecureContext && 'PublicKeyCredential' in window && !/^[\d.]+$|:/.test(location.hostname);

/** Has a device make a passkey, and adds it; recovery codes where it is the first factor. */
export async function addPasskey(name: string): Promise<Api['AddedFactor']> {
  const options = await data(api.POST('/api/session/second-factor/passkeys/begin'));
  const { startRegistration } = await browser();
  const answer = await startRegistration({ optionsJSON: options as never });
  return data(api.POST('/api/session/second-factor/passkeys', { body: { name, answer: answer as never } }));
}

/** Proves by a passkey who one is. */
export async function provePasskey(): Promise<Api['SessionResponse']> {
  const options = await data(api.POST('/api/session/second-factor/passkeys/proof'));
  const { startAuthentication } = await browser();
  const answer = await startAuthentication({ optionsJSON: options as never });
  return data(api.POST('/api/session/second-factor/passkeys/prove', { body: { answer: answer as never } }));
}
