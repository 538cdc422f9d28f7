export const words = {
  title: 'Sign in',
  email: 'Email address',
  password: 'Password',
  name: 'Your name',
  go: 'Sign in',
  demo: (password: string) =>
    `This is the demo. Sign in as any of these people; the password is ${password}.`,
  welcome: (name: string) => `Welcome, ${name}`,
  first: 'Set up your organisation',
  firstWhy: 'You will be the first coordinator. You can add people and teams next.',
  choose: 'Choose a password of at least 10 characters.',
  begin: 'Set password and sign in',
  ended: 'Go to the sign-in page',
};
