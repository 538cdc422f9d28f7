import styles from './mark.module.css';

const NAME = 'mellow rota';

export function Mark() {
  return (
    <span className={styles.mark}>
      <svg width="26" height="20" viewBox="0 0 26 20" aria-hidden="true">
        <path className={styles.upper} d="M2 7c3.5-4 6.500-4 11 0s7.500 4 11 0" />
        <path className={styles.lower} d="M2 14c3.500-4 6.500-4 11 0s7.500 4 11 0" />
      </svg>
      {NAME}
    </span>
  );
}
