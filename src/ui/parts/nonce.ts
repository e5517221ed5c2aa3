import { setNonce } from 'get-nonce';

// Windows put a style in the page while they are open; the content policy takes it only with the page's nonce.
if (typeof document !== 'undefined') {
  const nonce = document.querySelector<HTMLScriptElement>('script[nonce]')?.nonce;
  if (nonce) setNonce(nonce);
}
