/** All computation: tape, bars, studies, rules, interlocks, orders, account. Knows no screen, file, thread or wall clock. */
module stativex.core {
    requires org.antlr.antlr4.runtime;

    exports stativex.market;
    exports stativex.study;
    exports stativex.rule;
    exports stativex.exit;
    exports stativex.order;
    exports stativex.account;
    exports stativex.interlock;
    exports stativex.engine;
    exports stativex.trial;
    exports stativex.evidence;
    exports stativex.search;
}
