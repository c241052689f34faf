"use client";

import { useRouter } from "next/navigation";
import type { ProjectBody } from "@/contracts/projects";
import type { WrapUp as Told } from "@/contracts/wrap-up";
import { Empty, Loading } from "../kit/bits";
import { Button } from "../kit/button";
import { formatMoment } from "../kit/dates";
import { useTakeProject } from "../projects/in-hand";
import { useOpenProject } from "../projects/open-project";
import { FindsScreen } from "./finds-screen";
import { useLookedThrough, useWrapUp } from "./use-wrap-up";

/** The end of a project: what is worth keeping of it is ticked, adjusted, and filed all at once. */
export function WrapUp({ id }: { readonly id: string }) {
  const open = useOpenProject(id);
  useTakeProject(id);
  const looked = useLookedThrough(id, open.body?.revision ?? 0);
  const error = open.error ?? looked.error;
  if (error && !looked.data)
    return (
      <Empty page title="This project cannot be wrapped up">
        <p role="alert">{error.message}</p>
      </Empty>
    );
  if (!open.body || !looked.data) return <Loading what="Looking through the project" />;
  return <OpenWrapUp body={open.body} told={looked.data} />;
}

function OpenWrapUp({ body: { project }, told }: { readonly body: ProjectBody; readonly told: Told }) {
  const router = useRouter();
  const { findings, file, takeBack } = useWrapUp(project, told);
  const leave = () => router.push(`/projects/${project.id}`);
  return (
    <FindsScreen
      title={`Wrap up ${project.name}`}
      leave={{ words: "Back to the project", go: leave }}
      about={
        <>
          <span>
            {findings.loose === 0
              ? "The library has all of it"
              : `${findings.loose} of ${findings.found} not in the library`}
          </span>
          {told.last !== null && <span>wrapped up last {formatMoment(told.last)}</span>}
        </>
      }
      nothing={
        <Empty title="Nothing is left to file" className="flex-1">
          <p>All that sounds in {project.name} is in the library, or was passed over as it is.</p>
          <Button onClick={leave}>Back to the project</Button>
        </Empty>
      }
      {...{ findings, file, takeBack, project }}
    />
  );
}
