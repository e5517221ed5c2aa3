const shared = globalThis as { zincGateSlots?: Map<string, () => void> };

/** Gives up the request's slot (`front/slots.mjs`) while it waits for what is worked out in another process. */
export const leaveSlot = (request: Request): void =>
  shared.zincGateSlots?.get(request.headers.get('x-zinc-request') ?? '')?.();
