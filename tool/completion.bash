# Completion of the rapido tool for bash.
_rapido() {
    local word=${COMP_WORDS[COMP_CWORD]} options=
    COMPREPLY=()
    if ((COMP_CWORD == 1)); then
        mapfile -t COMPREPLY < <(compgen -W 'demo play plot sources check preview drive header format schema why manual completion --help' -- "$word")
        return
    fi
    case ${COMP_WORDS[1]} in
        demo) options='-h --help --out --data' ;;
        play) options='-h --help --trace --ranges --rate --size --ui-scale --language --translations --theme --reduced-motion --at --png --sheet --crop --table --columns --explain --events --background --point --json --from --to --record' ;;
        plot) options='-h --help --trace --ranges --rate --size --ui-scale --language --translations --theme --reduced-motion --of --png --from --to' ;;
        sources) options='-h --help --json' ;;
        check) options='-h --help --trace --size --ui-scale --language --translations --background --gray --smallest-text --safe-area --json' ;;
        preview) options='-h --help --trace --size --ui-scale --language --translations --theme --background --at --paused --set --png --follow --point' ;;
        drive) options='-h --help --window --png --rate --events --table --json --size --ui-scale --language --translations --theme --background' ;;
        header) options='-h --help --out --type --namespace --depfile' ;;
        format) options='-h --help --print --check --from' ;;
        schema) options='-h --help' ;;
        why) options='-h --help --pages' ;;
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
