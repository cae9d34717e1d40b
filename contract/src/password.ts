/**
 * NIST SP 800-63B-4, 3.1.1.2: at least 15 characters where nothing else is asked for, at least 64 allowed, no rules of
 * composition. (From memory.) Common ones are refused by the server.
 */
export const leastPasswordLength = 15
