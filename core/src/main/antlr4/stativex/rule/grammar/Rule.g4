// The rule language, readable aloud. docs/rule-language.md explains it.
grammar Rule;

condition : disjunction EOF ;
level : sum EOF ;

disjunction : conjunction (OR conjunction)* ;
conjunction : negation (AND negation)* ;
negation : NOT negation     # not
         | relation         # plain
         ;
relation : sum comparator sum           # comparison
         | sum crossing sum             # cross
         | '(' disjunction ')'          # group
         ;
comparator : '>' | '<' | '>=' | '<=' | '=' ;
crossing : RISES THROUGH | FALLS THROUGH ;

sum : product (('+' | '-') product)* ;
product : unary (('*' | '/') unary)* ;
unary : '-' unary       # minus
      | term            # positive
      ;
term : atom (NUMBER (BAR | BARS) BEFORE)? ;
atom : NUMBER (TICK | TICKS)?        # number
     | NAME ('.' NAME)?              # name
     | '(' sum ')'                   # brackets
     ;

AND : 'and' ;
OR : 'or' ;
NOT : 'not' ;
RISES : 'rises' ;
FALLS : 'falls' ;
THROUGH : 'through' ;
BAR : 'bar' ;
BARS : 'bars' ;
BEFORE : 'before' ;
TICK : 'tick' ;
TICKS : 'ticks' ;
NUMBER : [0-9]+ ('.' [0-9]+)? ;
NAME : [a-zA-Z_] [a-zA-Z_0-9]* ;
COMMENT : '#' ~[\r\n]* -> skip ;
SPACE : [ \t\r\n]+ -> skip ;
