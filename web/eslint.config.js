import hooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";

export default tseslint.config(
  { ignores: ["dist", "src/api/schema.d.ts"] },
  ...tseslint.configs.strict,
  {
    plugins: { "react-hooks": hooks },
    rules: {
      ...hooks.configs.recommended.rules,
      "@typescript-eslint/no-explicit-any": "error",
      // fetch belongs to the generated client alone.
      "no-restricted-globals": ["error", "fetch"],
    },
  },
  // The client itself hands the browser's fetch to the library.
  { files: ["src/api/client.ts"], rules: { "no-restricted-globals": "off" } },
);
