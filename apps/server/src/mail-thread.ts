/** The thread that speaks with mail servers, as it is started. */
import './delivery/mail-thread-end.js';
