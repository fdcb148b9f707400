/** Shapes and words of verdicts, so that none is told by colour alone. */
export const VERDICT_SHAPE: Record<string, string> = {
  PASS: "\u2713",
  PASS_UNSURE: "\u2248",
  FAIL_UNSURE: "\u2248",
  FAIL: "\u2717",
  INVALID: "?",
  NONE: "\u00B7",
};

export const VERDICT_WORDS: Record<string, string> = {
  PASS: "PASS",
  PASS_UNSURE: "PASS, close",
  FAIL_UNSURE: "FAIL, close",
  FAIL: "FAIL",
  INVALID: "NOT JUDGED",
  NONE: "",
};
