// @vitest-environment jsdom
import { QueryClient, QueryClientProvider, useQuery } from "@tanstack/react-query";
import { act } from "react";
import { hydrateRoot } from "react-dom/client";
import { renderToString } from "react-dom/server";
import { expect, it } from "vitest";
import { Screen } from "./screen";

function Name() {
  const { data } = useQuery({ queryKey: ["name"], queryFn: () => Promise.resolve("Horn"), staleTime: Infinity });
  return data === undefined ? <p>Opening</p> : <h1>{data}</h1>;
}

it("is taken over from the server without complaint, also where more is known by then", async () => {
  const page = (queries: QueryClient) => (
    <QueryClientProvider client={queries}>
      <Screen>
        <Name />
      </Screen>
    </QueryClientProvider>
  );
  const root = document.createElement("div");
  root.innerHTML = renderToString(page(new QueryClient()));
  const known = new QueryClient();
  known.setQueryData(["name"], "Horn");
  const complaints: unknown[] = [];
  await act(async () => {
    hydrateRoot(root, page(known), { onRecoverableError: (error) => complaints.push(error) });
    await Promise.resolve();
  });
  expect(complaints).toEqual([]);
  expect(root.textContent).toBe("Horn");
});
