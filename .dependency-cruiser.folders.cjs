const { options } = require("./.dependency-cruiser.cjs");

/** Folders depend one way only; tests may stand on whatever they need. */
module.exports = {
  forbidden: [{ name: "no-cycles-of-folders", severity: "error", scope: "folder", from: {}, to: { circular: true } }],
  options: { ...options, exclude: { path: "\\.test\\.tsx?$|/testing(/|\\.ts$)" } },
};
