/** Where a phone dials that number (RFC 3966). */
export const telOf = (phone: string) => 'tel:' + phone.replace(/[^+\d]/g, '');
