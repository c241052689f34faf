"use client";

import { useQuery } from "@tanstack/react-query";
import Link from "next/link";
import * as archive from "@/clients/archive";
import { KEYS } from "@/clients/events";
import { formatMoment } from "../kit/dates";

/** A backup that failed is said at the top of every screen, until one comes out whole. */
export function BackupAlarm() {
  const { data } = useQuery({ queryKey: [...KEYS.settings, "backups"], queryFn: archive.lastBackup });
  const last = data?.last;
  if (last?.failed == null) return null;
  return (
    <p
      role="alert"
      className="flex min-w-0 flex-none items-center gap-2 border-alert border-l-[3px] bg-alert-tint px-3 py-[3px]"
    >
      <span>The backup of {formatMoment(last.at)} failed.</span>
      <Link href="/archive" className="underline">
        See why
      </Link>
    </p>
  );
}
