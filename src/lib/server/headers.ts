/** What every answer says, files included. */
export const HEADERS: Readonly<Record<string, string>> = {
  'x-content-type-options': 'nosniff',
  'referrer-policy': 'strict-origin-when-cross-origin',
  'cross-origin-opener-policy': 'same-origin',
  'cross-origin-resource-policy': 'same-origin',
  // The booth records a voice; nothing else of the device is asked for.
  'permissions-policy':
    'camera=(), geolocation=(), microphone=(self), payment=(), usb=(), serial=(), bluetooth=(), midi=(), display-capture=()'
};
