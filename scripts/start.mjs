import { build } from "./build.mjs";
import { install } from "./install.mjs";
import { serve } from "./serve.mjs";

install();
build();
serve(process.env.DIATHESIS_DATA ?? ".data/library");
