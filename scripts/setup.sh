# Sourced by scripts/demo and scripts/test: makes .venv with the pinned packages, and installs what Qt
# needs from Debian's packages. Does nothing where that is done already. $1: "dev" for the test tools too.

ventrix_setup() {
    local extra=$1 stamp want package missing=()
    for package in libegl1 libgl1 libxkbcommon0 libdbus-1-3 libfontconfig1 libglib2.0-0 libxkbcommon-x11-0 \
        libxcb-cursor0 libxcb-icccm4 libxcb-image0 libxcb-keysyms1 libxcb-render-util0 libxcb-shape0 "${@:2}"; do
        [ -e "/var/lib/dpkg/info/$package.list" ] || ls "/var/lib/dpkg/info/$package":*.list >/dev/null 2>&1 || missing+=("$package")
    done
    if [ ${#missing[@]} -gt 0 ]; then
        if command -v apt-get >/dev/null; then
            local sudo=
            [ "$(id -u)" = 0 ] || sudo=sudo
            echo "installing: ${missing[*]}" >&2
            $sudo apt-get update -qq >&2 &&
                DEBIAN_FRONTEND=noninteractive $sudo apt-get install -y -qq --no-install-recommends "${missing[@]}" >&2 ||
                echo "could not install ${missing[*]}: the window may not start" >&2
        else
            echo "not a Debian machine: if the window does not start, install what Qt needs (${missing[*]})" >&2
        fi
    fi
    stamp=.venv/.set-up-$extra
    want=$(cat pyproject.toml constraints.txt scripts/setup.sh | sha256sum)
    if [ "$(cat "$stamp" 2>/dev/null)" != "$want" ]; then
        echo "setting up .venv (once)" >&2
        local python=python3 candidate
        for candidate in python3 python3.13 python3.12 python3.11; do
            if "$candidate" -c 'import sys; sys.exit(sys.version_info < (3, 11))' 2>/dev/null; then
                python=$candidate
                break
            fi
        done
        [ -x .venv/bin/python ] || "$python" -m venv .venv || return 1
        local target=.
        [ "$extra" = dev ] && target='.[dev]'
        .venv/bin/python -m pip install -q --disable-pip-version-check -c constraints.txt -e "$target" >&2 || return 1
        echo "$want" >"$stamp"
    fi
}
