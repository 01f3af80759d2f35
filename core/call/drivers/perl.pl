# Calls the function of @FILE@ for Cold Verdict. Each line of standard input
# after the first holds the arguments of one call, as JSON; the answer to each goes
# to descriptor 3. What the function prints stays what it prints; a mark behind it
# says which call it belongs to.
package ColdDriver;
use strict;
use warnings;
use JSON::PP ();
use Time::HiRes ();
use Scalar::Util ();

my @names = (@NAME_LIST@);
my $count = @COUNT@;      # arguments
my $changes = @CHANGES@;  # the argument that is the result, from 1; 0: what is returned
my $both = @BOTH@;        # what is returned is a result, too
my @takes = (@TAKE_LIST@);      # types of the arguments
my @results = (@RESULT_LIST@);  # and of what is returned

open(my $calls, '<&', \*STDIN) or die;
open(STDIN, '<', '/dev/null') or die;
open(my $answers, '>&=', 3) or die;
open(my $out, '>&', \*STDOUT) or die;
open(my $err, '>&', \*STDERR) or die;
my $token = (split ' ', scalar <$calls>)[2];
my $answered = 0;

sub answer { my $text = "$token $answered $_[0]\n"; utf8::encode($text) if utf8::is_utf8($text); syswrite $answers, substr($text, 0, 1 << 20, '') while length $text }

# The mark stands where the call ended: what it returned is written behind it.
my $settled;
sub settle {
    return if $settled;
    $settled = 1;
    my $old = select STDOUT; $| = 1; $| = 0;
    select STDERR; $| = 1; $| = 0;
    select $old;
    syswrite $_, "\0$token\n" for $out, $err;
}

sub given {
    my ($type, $v, $depth) = @_;
    die {misfit => 'it returned a value that is nested too deeply, or contains itself'} if $depth > 500;
    return 'null' if !defined $v;
    return given(substr($type, 0, -1), $v, $depth) if $type =~ /\?$/;
    if (ref $v eq 'ARRAY') {
        my $of = $type =~ s/\[\]$//r;
        return '[' . join(',', map { given($of, $_, $depth + 1) } @$v) . ']';
    }
    return $v ? 'true' : 'false' if $type eq 'bool' && !ref $v || JSON::PP::is_bool($v);
    $v = "$v" if ref $v && Scalar::Util::blessed($v);
    die {misfit => 'it returned a reference to ' . ref($v) . ", which is none of the problem's types"} if ref $v;
    if ($type =~ /^(?:int|long|bigint)/) {
        return $v if $v =~ /^-?\d+$/;
        return sprintf('%.0f', $v) if $v =~ /^-?[\d.]+(?:e\+?\d+)?$/i && $v == int $v;
    }
    if ($type =~ /^real/ && Scalar::Util::looks_like_number($v)) {
        return 'NaN' if $v != $v;
        return $v < 0 ? '-Infinity' : 'Infinity' if abs($v) == 9**9**9;
        my $text = sprintf('%.17g', $v);
        return $text =~ /^-?\d+$/ ? "$text.0" : $text;
    }
    return $v if $type =~ /^(?:int|long|bigint|real)/ && Scalar::Util::looks_like_number($v);
    return JSON::PP->new->allow_nonref->encode("$v");
}

# found is what to call, by the rules that all drivers have in common: a method of the class Solution, a function,
# a method of another class, the last before the first.
sub found {
    my ($text) = @_;
    my @packages = reverse $text =~ /^\s*package\s+([\w:]+)/mg;
    for my $package ('Solution', 'main', grep { $_ ne 'Solution' && $_ ne 'main' } @packages) {
        for my $name (@names) {
            my $code = $package->can($name) or next;
            next if $package eq 'main' && !defined &{"main::$name"};
            return $code if $package eq 'main';
            return sub { $package->can('new') ? $package->new->$name(@_) : $package->$name(@_) };
        }
    }
    return;
}

# listed is an array that a function may have returned as a list, where its only value is not that array.
sub listed {
    my ($type, @got) = @_;
    return $got[0] if @got == 1 && !defined $got[0];
    my ($depth, $seen) = (scalar(() = $type =~ /\[\]/g), 0);
    for (my $v = $got[0]; @got == 1 && ref $v eq 'ARRAY'; $v = $v->[0]) {
        $seen++;
        return $got[0] if !@$v || $seen == $depth;
    }
    return \@got;
}

sub call {
    my ($code, @args) = @_;
    my $array = @results == 1 && !$changes && $results[0] =~ /\[\]$/;
    my $began = Time::HiRes::clock();
    my @got = eval { $array || @results > 1 && !$changes ? $code->(@args) : scalar $code->(@args) };
    my $error = $@;
    my $spent = int((Time::HiRes::clock() - $began) * 1e9);
    if ($error) {
        $error =~ s/, <\$calls> line \d+\././;
        syswrite $err, $error =~ /\n$/ ? $error : "$error\n";
        return "failed $spent 1";
    }
    settle();
    my $text = eval {
        if ($changes) {
            my $changed = given($takes[$changes - 1], $args[$changes - 1], 0);
            $both ? '[' . given($results[0], $got[0], 0) . ",$changed]" : $changed;
        } elsif (@results == 1) {
            given($results[0], $array ? listed($results[0], @got) : $got[0], 0);
        } else {
            @got = @{$got[0]} if @got == 1 && ref $got[0] eq 'ARRAY';
            '[' . join(',', map { given($results[$_], $got[$_], 0) } 0 .. $#results) . ']';
        }
    };
    return "done $spent $text" if defined $text;
    return "misfit $spent " . (ref $@ eq 'HASH' ? $@->{misfit} : $@ =~ s/\n/ /gr);
}

# Reals that JSON has no word for come as texts, and are numbers again.
my $unsaid = qr/"(?:[^"\\]|\\.)*"(*SKIP)(*FAIL)|-?Infinity|NaN/;

sub real { my ($v) = @_; ref $v ? [map { real($_) } @$v] : defined $v && $v =~ /^(?:NaN|-?Infinity)$/ ? 0 + $v : $v }

sub main {
    my ($folder) = $0 =~ m{^(.*)/};
    my $path = ($folder // '.') . '/' . @FILE_TEXT@;
    open(my $file, '<', $path) or die;
    my $text = do { local $/; <$file> };
    close $file;
    {
        package main;
        my $done = do $path;
        if (my $error = $@) { print STDERR $error; exit 1 }
    }
    no strict 'refs';
    my $code = found($text);
    return answer('unserved there is no function ' . $names[0] . ' in @FILE@' . @NEARLY_TEXT@) if !$code;
    settle();
    answer('ready');
    my $json = JSON::PP->new->utf8->allow_bignum(0)->max_depth(100000);
    while (defined(my $line = <$calls>)) {
        $line =~ s/(?<=[\[,])(-?\d{16,})(?=[\],])/length($1) < 19 || $1 == int($1) && "" . int($1) eq $1 ? $1 : "\"$1\""/ge if $line =~ /\d{16}/;
        my $unusual = $line =~ s/($unsaid)/"$1"/g;
        my $args = $json->decode($line);
        if ($unusual) { for my $i (grep { $takes[$_] =~ /^real/ } 0 .. $#$args) { $args->[$i] = real($args->[$i]) } }
        answer('begin') if length $line > 100000;
        $settled = 0;
        my $words = call($code, @$args);
        settle();
        answer($words);
        $answered++;
    }
}

main();
