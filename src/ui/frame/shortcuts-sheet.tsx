"use client";

import { withShortcut } from "@/core/settings/settings";
import { showKey, useEnabledActions } from "../actions/actions";
import { KeyCapture } from "../kit/key-capture";
import { useSettings } from "../settings/settings";
import { Key } from "../kit/bits";
import { orSay } from "../kit/say";
import { Scroll } from "../kit/scroll";
import { Sheet } from "../kit/sheet";
import { closeShortcuts } from "./shortcuts";

/** Every key that does something here and now. */
export function ShortcutsSheet() {
  const actions = useEnabledActions().filter((a) => a.keys?.length);
  const { settings, change } = useSettings();
  const own = (keys: string) => settings.shortcuts.find((s) => s.keys === keys);
  const groups = [...new Set(actions.map((a) => a.group))];
  return (
    <Sheet open onClose={closeShortcuts} title="Shortcuts" aside="on this screen" className="w-[760px]">
      <Scroll label="All shortcuts" className="max-h-[calc(100vh-236px)] outline-offset-2">
        <div className="columns-2 gap-10">
          {groups.map((group) => (
            <section key={group} className="mb-4 break-inside-avoid">
              <h2 className="h2 mb-1 border-rule border-b pb-1">{group}</h2>
              <dl>
                {actions
                  .filter((a) => a.group === group)
                  .map((action) => (
                    <div key={action.id} className="flex min-h-7 items-center justify-between gap-4">
                      <dt>{action.title}</dt>
                      <dd className="flex gap-1">
                        {action.keys?.map((key) => {
                          const mine = own(key);
                          return mine ? (
                            <KeyCapture
                              key={key}
                              label={action.title}
                              keys={key}
                              onKeys={(keys) => orSay(change((now) => withShortcut(now, mine.does, keys)))}
                            />
                          ) : (
                            <Key key={key}>{showKey(key)}</Key>
                          );
                        })}
                      </dd>
                    </div>
                  ))}
              </dl>
            </section>
          ))}
        </div>
      </Scroll>
    </Sheet>
  );
}
