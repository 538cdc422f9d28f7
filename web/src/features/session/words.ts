export const words = {
  title: 'Sign in',
  email: 'Mail address',
  password: 'Password',
  name: 'Your name',
  go: 'Sign in',
  demo: (password: string) =>
    `This is the demo. Any of these opens it, with the password ${password}:`,
  welcome: (name: string) => `Welcome, ${name}`,
  first: 'You begin this house',
  firstWhy: 'You will be its first coordinator: you add the crew and their teams.',
  choose: 'Choose a password of at least 10 characters.',
  begin: 'Set password and sign in',
  ended: 'To the sign-in page',
};
