// What React asks of a browser as it loads, and never uses where markup is made once.
class NoChannel {
  port1 = {};
  port2 = { postMessage: () => {} };
}

class NoEncoder {
  encode = () => new Uint8Array();
}

Object.assign(globalThis, {
  MessageChannel: NoChannel,
  TextEncoder: NoEncoder,
  window: undefined,
});
