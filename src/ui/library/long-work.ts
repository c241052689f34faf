import * as api from "@/clients/api";
import { wantWords } from "../kit/say";

/** Work that is done sooner is not told of, in milliseconds. */
const SOON = 500;
/** Between one look at how far it is and the next, in milliseconds. */
const OFTEN = 200;

const ID = "long work";

/**
 * Does what takes the server a while: how far it is stands at the lower edge, with a way to stop it. Stopped, it rejects, and
 * nothing of it has happened.
 */
export async function withProgress<T>(words: string, work: () => Promise<T>): Promise<T> {
  let isOver = false;
  const tell = async () => {
    wantWords();
    const { toast } = await import("sonner");
    while (!isOver) {
      const under = (await api.workUnderWay().catch(() => null))?.work;
      if (isOver) break;
      const share = under && under.of > 0 ? ` ${Math.floor((100 * under.done) / under.of)} %` : "";
      toast(`${words}…${share}`, {
        id: ID,
        duration: Number.POSITIVE_INFINITY,
        action: {
          label: "Stop",
          onClick: (event) => {
            // It stands until what was begun is undone.
            event.preventDefault();
            void api.stopWork();
          },
        },
      });
      await new Promise((resolve) => setTimeout(resolve, OFTEN));
    }
    toast.dismiss(ID);
  };
  const timer = setTimeout(() => void tell(), SOON);
  try {
    return await work();
  } finally {
    isOver = true;
    clearTimeout(timer);
  }
}
