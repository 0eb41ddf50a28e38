# Completion of the rapido tool for bash.
_rapido() {
    local word=${COMP_WORDS[COMP_CWORD]} options=
    COMPREPLY=()
    if ((COMP_CWORD == 1)); then
        mapfile -t COMPREPLY < <(compgen -W 'demo play plot names manual completion --help' -- "$word")
        return
    fi
    case ${COMP_WORDS[1]} in
        demo) options='-h --help --out --sample' ;;
        play) options='-h --help --trace --sweep --rate --size --scale --locale --translations --theme --reduced-motion --at --png --sheet --table --explain --events --background --overlay --json --from --to --record' ;;
        plot) options='-h --help --trace --sweep --rate --size --scale --locale --translations --theme --reduced-motion --of -o --png --from --to' ;;
        names) options='-h --help --json' ;;
        manual) options='-h --help' ;;
        completion) options='-h --help' ;;
    esac
    if [[ $word == -* ]]; then
        mapfile -t COMPREPLY < <(compgen -W "$options" -- "$word")
    else
        mapfile -t COMPREPLY < <(compgen -f -- "$word")
    fi
}
complete -o filenames -F _rapido rapido
