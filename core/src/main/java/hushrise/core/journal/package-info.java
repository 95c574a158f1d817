/** Every step on disk as it is made, and what a crash left given back. */
package hushrise.core.journal;
