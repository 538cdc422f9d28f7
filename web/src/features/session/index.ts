export { useSession, useSignOut, type Session } from './queries';
