import type { ChangedRecord } from "../data/changes";
import type { Context } from "../store/context";

/** Keeps the line open through whatever closes quiet ones. In milliseconds. */
const HEARTBEAT = 20_000;

/** Server-sent events: after each transaction, which records changed. */
export function eventStream({ events }: Context, signal: AbortSignal): Response {
  const encoder = new TextEncoder();
  let stop = () => {};
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      const send = (text: string) => controller.enqueue(encoder.encode(text));
      const tell = (change: { seq: number; records: readonly ChangedRecord[] }) =>
        send(`id: ${change.seq}\nevent: change\ndata: ${JSON.stringify(change)}\n\n`);
      const heartbeat = setInterval(() => send(": here\n\n"), HEARTBEAT);
      stop = () => {
        clearInterval(heartbeat);
        events.off("change", tell);
      };
      events.on("change", tell);
      signal.addEventListener("abort", () => {
        stop();
        controller.close();
      });
      send(": open\n\n");
    },
    cancel: () => stop(),
  });
  return new Response(stream, { headers: { "Content-Type": "text/event-stream", "Cache-Control": "no-store" } });
}
