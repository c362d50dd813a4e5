// A clock beside the page: a busy or hidden page does not slow it down.
setInterval(() => postMessage(0), 100);
