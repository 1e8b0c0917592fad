/**
 * A stream of server-sent events that stays open until the browser leaves. @param join hands over the function that tells
 * a text, and gets back what is called when nobody listens any more.
 */
export function eventStream(request: Request, join: (tell: (text: string) => void) => () => void): Response {
  const encoder = new TextEncoder();
  let leave: (() => void) | undefined;
  const end = (): void => {
    leave?.();
    leave = undefined;
  };
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      controller.enqueue(encoder.encode('retry: 2000\n\n'));
      leave = join((text) => controller.enqueue(encoder.encode(`data: ${text}\n\n`)));
    },
    cancel: end,
  });
  request.signal.addEventListener('abort', end);
  return new Response(stream, {
    headers: {
      'content-type': 'text/event-stream',
      'cache-control': 'no-cache, no-transform',
      'x-accel-buffering': 'no',
    },
  });
}
