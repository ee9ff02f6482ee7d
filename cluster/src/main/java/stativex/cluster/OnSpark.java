package stativex.cluster;

import stativex.files.SearchElsewhere;
import stativex.files.SearchSpec;
import stativex.market.Tape;

/** The provider by which the command line finds Apache Spark. */
public final class OnSpark implements SearchElsewhere {
    /** For the service loader. */
    public OnSpark() {}

    @Override
    public Machines open(String master, SearchSpec spec, Tape tape) {
        return SparkMachines.at(master, spec, tape);
    }
}
