import text from './words.json';

export const words = {
  ...text,
  demo: (password: string) =>
    `This is the demo. Sign in as any of these people; the password is ${password}.`,
  welcome: (name: string) => `Welcome, ${name}`,
};
