import { configure } from "@testing-library/react";

/** A machine that has other work takes several times as long: what is waited for comes, or the test is at its end. */
configure({ asyncUtilTimeout: 60_000 });
