/**
 * Decisions: {@link zesty.signal.core.act.Controller} decides by the rules of a {@link zesty.signal.core.act.RuleBook} and says what is to be sent; a
 * {@link zesty.signal.core.act.Band} is what a reading is meant to stay in. Pure; one thread an instance.
 */
package zesty.signal.core.act;
