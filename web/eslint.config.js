import js from "@eslint/js";
import a11y from "eslint-plugin-jsx-a11y";
import hooks from "eslint-plugin-react-hooks";
import ts from "typescript-eslint";

export default ts.config(
  { ignores: ["src/data/*.generated.ts"] },
  js.configs.recommended,
  ...ts.configs.strict,
  a11y.flatConfigs.recommended,
  hooks.configs.flat.recommended,
  {
    rules: {
      "@typescript-eslint/no-non-null-assertion": "off",
    },
  },
);
