import js from '@eslint/js';
import tseslint from 'typescript-eslint';

const features = [
  'session',
  'today',
  'myday',
  'records',
  'board',
  'crew',
  'account',
  'incoming',
  'rules',
  'sight',
  'copies',
  'cover',
  'deadlines',
];

export default tseslint.config(
  { ignores: ['src/shared/api/schema.d.ts'] },
  js.configs.recommended,
  ...tseslint.configs.recommended,
  {
    files: ['src/**/*.{ts,tsx}'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: "NewExpression[callee.name='Date'][arguments.length=0]",
          message: 'Ask shared/time for the time.',
        },
        { selector: 'Literal[value=/^#[0-9a-fA-F]{3,8}$/]', message: 'Colours are tokens.' },
        {
          selector: 'JSXText[value=/\\p{L}{2,} \\p{L}{2,}/u]',
          message: 'Sentences stand in words.json.',
        },
        {
          selector: 'Literal[value=/^\\p{Lu}[\\p{L}’]+,? \\p{Ll}+,? \\p{L}+/u]',
          message: 'Sentences stand in words.json.',
        },
      ],
    },
  },
  {
    files: ['src/**/*.{ts,tsx}'],
    rules: {
      'max-lines': ['error', 500],
      'max-lines-per-function': ['error', { max: 100, skipBlankLines: true, skipComments: true }],
    },
  },
  // Those with a number or a name in them.
  { files: ['src/**/words.ts'], rules: { 'no-restricted-syntax': 'off' } },
  { files: ['src/shared/time.ts'], rules: { 'no-restricted-syntax': 'off' } },
  // app -> features -> shared; a feature's doors are its index and, for the app, its pages.
  {
    files: ['src/shared/**'],
    rules: {
      'no-restricted-imports': ['error', { patterns: ['**/features/**', '**/app/**'] }],
    },
  },
  ...features.map((feature) => ({
    files: [`src/features/${feature}/**`],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: ['**/app/**', ...features.filter((f) => f !== feature).map((f) => `**/${f}/*`)],
        },
      ],
    },
  })),
);
