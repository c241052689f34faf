import { afterEach, expect, it, vi } from "vitest";
import { ApiFailure } from "@/clients/api";
import { errorText } from "./error-text";

afterEach(() => vi.restoreAllMocks());

it("is what an error says in words; what nobody wrote for the person goes to the console", () => {
  const log = vi.spyOn(console, "error").mockImplementation(() => undefined);
  expect(errorText(new ApiFailure({ code: "refused", message: "A preset cannot hold itself." }))).toBe(
    "A preset cannot hold itself.",
  );
  expect(log).not.toHaveBeenCalled();
  const fault = new TypeError("undefined is not a function");
  expect(errorText(fault)).not.toContain("undefined");
  expect(log).toHaveBeenCalledWith(fault);
});
