"use client";

import { useRouter } from "next/navigation";
import type { Sweep as Told, SweepFinds } from "@/contracts/wrap-up";
import { counted } from "@/core/names/count";
import { Empty, Loading } from "../kit/bits";
import { Button } from "../kit/button";
import { Progress, shareOf } from "../kit/progress";
import { FindsScreen } from "./finds-screen";
import { useLastSweep, useSweepFinds, useSweepWrapUp } from "./use-sweep";

/** The wrap-up of many projects: what any of them has that the library has not, each sound once. */
export function Sweep() {
  const router = useRouter();
  const leave = () => router.push("/projects");
  const last = useLastSweep();
  if (last.error && !last.data)
    return (
      <Empty page title="Nothing can be looked through">
        <p role="alert">{last.error.message}</p>
      </Empty>
    );
  if (!last.data) return <Loading what="Looking through projects" />;
  const { sweep } = last.data;
  if (!sweep)
    return (
      <Empty page title="No projects are being looked through">
        <p>Choose a drawer among the projects, or all of them, and wrap them up together.</p>
        <Button onClick={leave}>All projects</Button>
      </Empty>
    );
  return <OneSweep key={sweep.id} sweep={sweep} leave={leave} />;
}

interface OneProps {
  readonly sweep: Told;
  readonly leave: () => void;
}

function OneSweep({ sweep, leave }: OneProps) {
  const { finds, showMore } = useSweepFinds(sweep);
  if (!finds.data) return <Loading what="Looking through projects" />;
  return <OpenSweep found={finds.data} {...{ sweep, leave, showMore }} />;
}

interface OpenProps extends OneProps {
  readonly found: SweepFinds;
  readonly showMore: (() => void) | null;
}

function OpenSweep({ sweep, found, leave, showMore }: OpenProps) {
  const { findings, change, file, takeBack } = useSweepWrapUp(sweep, found);
  const { called, done, of, isRunning, failed } = sweep;
  const isWhole = done >= of;
  const shown = found.finds.length;
  return (
    <FindsScreen
      title={`Wrap up ${called}`}
      leave={{ words: "Back to the projects", go: leave }}
      about={
        <span>
          {counted(found.total, "sound")} not in the library, in {counted(done - failed.length, "project")}
        </span>
      }
      over={
        <>
          {isRunning && (
            <Progress
              words={`Looking through ${of} projects`}
              share={shareOf({ done, of })}
              onStop={() => change(false)}
            />
          )}
          {!isRunning && !isWhole && (
            <p className="flex flex-none items-center gap-3 border-edge border-t px-[14px] py-2">
              Stopped after {done} of {of} projects.
              <Button small onClick={() => change(true)}>
                Go on
              </Button>
            </p>
          )}
          {failed.length > 0 && (
            <p role="alert" className="flex-none border-alert border-l-[3px] bg-alert-tint px-[14px] py-2">
              {failed.map(({ id, name, why }) => (
                <span key={id} className="block">
                  {name} was not looked through: {why}
                </span>
              ))}
            </p>
          )}
        </>
      }
      nothing={
        <Empty title={isWhole ? "Nothing is left to file" : "Nothing is found yet"} className="flex-1">
          <p>
            {isWhole
              ? "All that sounds in these projects is in the library, or was passed over as it is."
              : "What is found stands here as soon as it is."}
          </p>
        </Empty>
      }
      more={
        shown < found.total ? (
          <p className="flex flex-none items-center gap-3 border-edge border-t px-[14px] py-2 text-soft">
            The {shown} with the most work in them of {found.total} are shown.
            {showMore ? (
              <Button small onClick={showMore}>
                Show more
              </Button>
            ) : (
              " The others come when these are filed or passed over."
            )}
          </p>
        ) : null
      }
      project={null}
      {...{ findings, file, takeBack }}
    />
  );
}
