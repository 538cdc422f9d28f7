export { SignIn } from './SignIn';
export { Welcome } from './Welcome';
export { useSession, useSignOut, type Session } from './queries';
